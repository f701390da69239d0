'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';

/** What was held back because it stops protected terms: it goes in with a reason. */
export type HeldBack = { ids: readonly number[]; said: string };

/** Puts in the tray what makes elements stand again as they did on a day; with an undo. */
export function usePutBack(day: string) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const [heldBack, setHeldBack] = useState<HeldBack | null>(null);
  async function putBack(ids: readonly number[], forcedBecause?: string): Promise<void> {
    try {
      const body = { day, ids: [...ids], ...(forcedBecause !== undefined && { forcedBecause }) };
      const { said, changeIds, heldBack: held } = await call('POST standing/back', { body });
      setHeldBack(held > 0 ? { ids, said } : null);
      if (changeIds.length > 0) await undoable(said, () => call('DELETE tray', { body: { changeIds } }));
      else if (held === 0) toast(said);
    } catch (error) {
      sayFailure(error);
    }
  }
  return { putBack, heldBack, leave: () => setHeldBack(null) };
}
