'use client';

import { toast } from 'sonner';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';

/** Puts in the tray what makes elements stand again as they did on a day; with an undo. */
export function usePutBack(day: string): (ids: readonly number[]) => Promise<void> {
  const { call } = useRoutes();
  const undoable = useUndoable();
  return async (ids) => {
    try {
      const { said, changeIds } = await call('POST standing/back', { body: { day, ids: [...ids] } });
      if (changeIds.length === 0) toast(said);
      else await undoable(said, () => call('DELETE tray', { body: { changeIds } }));
    } catch (error) {
      sayFailure(error);
    }
  };
}
