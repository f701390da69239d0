'use client';

import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import type { EditOutcome, EditPlan, ListEdit } from '@/contracts/lists';
import { useAccount } from '@/screens/frame/account-context';
import { useRefresh, useUndoable } from '@/screens/frame/refresh';
import { doing } from '@/screens/frame/undo';
import { sayFailure } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { plural } from '@/ui/format';

function planOf(slug: string, api: (path: string) => string, edit: ListEdit | null) {
  return queryOptions({
    queryKey: ['plan', slug, edit],
    queryFn: ({ signal }) => ask<EditPlan>(api('lists/plan'), { method: 'POST', body: { edit }, signal }),
    retry: false,
  });
}

/** What an edit would come to; nothing is asked while there is none, or while it is not wanted. */
export function usePlan(edit: ListEdit | null, isWanted = true) {
  const { summary, api } = useAccount();
  return useQuery({ ...planOf(summary.slug, api, edit), enabled: edit !== null && isWanted });
}

/** Asks for a plan that will be wanted, while the screen is still busy with what it is about. */
export function usePlanAhead(): (edit: ListEdit) => void {
  const { summary, api } = useAccount();
  const client = useQueryClient();
  return (edit) => void client.prefetchQuery(planOf(summary.slug, api, edit));
}

/** Puts an edit of lists in the tray, with its undo. */
export function usePutEdit(): (edit: ListEdit, forcedBecause?: string) => Promise<EditOutcome | undefined> {
  const { api } = useAccount();
  const refresh = useRefresh();
  const undoable = useUndoable();
  return async (edit, forcedBecause) => {
    try {
      const body = { edit, forcedBecause };
      const outcome = await doing(ask<EditOutcome>(api('lists/edit'), { method: 'POST', body }));
      const { changeIds, said, refused } = outcome;
      if (refused.count > 0) toast(`${plural(refused.count, 'change')} refused: ${refused.first[0]}`);
      if (changeIds.length > 0)
        await undoable(`${said} (${plural(changeIds.length, 'change')})`, () =>
          ask(api('tray'), { method: 'DELETE', body: { changeIds } }),
        );
      else await refresh();
      return outcome;
    } catch (error) {
      sayFailure(error);
      return undefined;
    }
  };
}
