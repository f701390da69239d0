'use client';

import { toast } from 'sonner';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';

/** Takes back the whole tray of a change, or all that was sent since: as changes in the tray, which say what opens again. */
export function UndoTogether({ changeId }: { changeId: number }) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const undo = async (what: 'tray' | 'since') => {
    try {
      const { said, changeIds } = await call('POST ledger/[change]/undo-together', {
        params: { change: changeId },
        body: { what },
      });
      if (changeIds.length === 0) toast(said);
      else await undoable(said, () => call('DELETE tray', { body: { changeIds } }));
    } catch (error) {
      sayFailure(error);
    }
  };
  return (
    <div className="mt-2 flex flex-wrap gap-1.5">
      <Button onClick={() => void undo('tray')}>Undo its tray</Button>
      <Button onClick={() => void undo('since')}>Undo it and all since</Button>
    </div>
  );
}
