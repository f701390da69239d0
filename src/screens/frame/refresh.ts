'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { useAccount } from './account-context';
import { notePulse, PULSE } from './pulse';
import { offerUndo } from './undo';

/**
 * Everything that the tray or the account decides is asked for again. The pulse first: what it shows is known from here
 * on, and is not taken for somebody else's doing.
 */
export function useRefresh(): () => Promise<void> {
  const client = useQueryClient();
  const { api, summary } = useAccount();
  const slug = summary.slug;
  return useCallback(async () => {
    await notePulse(slug, api);
    await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== PULSE });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the path is the account's
  }, [client, slug]);
}

/** After something was done: the undo is offered at once, and everything is asked for again; so it is after the undo. */
export function useUndoable(): (said: string, undo: () => Promise<unknown>) => Promise<void> {
  const refresh = useRefresh();
  return useCallback(
    async (said, undo) => {
      offerUndo(said, async () => {
        await undo();
        await refresh();
      });
      await refresh();
    },
    [refresh],
  );
}
