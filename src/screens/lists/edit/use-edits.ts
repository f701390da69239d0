'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type { EditOutcome, ListEdit } from '@/contracts/list-edits';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { sayFailure } from '@/screens/tray/use-tray';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** @param edit null while there is none; then nothing is asked */
function usePlanOf() {
  const { query } = useRoutes();
  // Nobody asks for what there is none of, so what it would ask does not matter.
  return (edit: ListEdit | null) => ({
    ...query('POST lists/plan', { body: { edit: edit! } }),
    retry: false,
  });
}

/** What an edit would come to; nothing is asked while there is none, or while it is not wanted. */
export function usePlan(edit: ListEdit | null, isWanted = true) {
  return useQuery({ ...usePlanOf()(edit), enabled: edit !== null && isWanted });
}

/** Asks for a plan that will be wanted, while the screen is still busy with what it is about. */
export function usePlanAhead(): (edit: ListEdit) => void {
  const planOf = usePlanOf();
  const client = useQueryClient();
  return (edit) => void client.prefetchQuery(planOf(edit));
}

/** Puts an edit of lists in the tray, with its undo. */
export function usePutEdit(): (edit: ListEdit, forcedBecause?: string) => Promise<EditOutcome | undefined> {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const undoable = useUndoable();
  return async (edit, forcedBecause) => {
    try {
      const body = { edit, forcedBecause };
      const outcome = await doing(call('POST lists/edit', { body }));
      const { changeIds, said, refused } = outcome;
      if (refused.count > 0) toast(`${counted(refused.count, 'change')} refused: ${refused.first[0]}`);
      if (changeIds.length > 0)
        await undoable(`${said} (${counted(changeIds.length, 'change')})`, () =>
          call('DELETE tray', { body: { changeIds } }),
        );
      else await refresh();
      return outcome;
    } catch (error) {
      sayFailure(error);
      return undefined;
    }
  };
}
