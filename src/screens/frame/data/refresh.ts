'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { Part } from '@/contracts/routes';
import { useAccount } from '../account-context';
import { takeChanged } from './freshness';
import { askAgain } from './routes';
import { offerUndo } from './undo';

/**
 * Asks again for what is on the screen and made of the parts that were changed: by the decisions since the last time,
 * or, where none was made, of all. Ends when the answers are there.
 */
export function useRefresh(): (parts?: readonly Part[]) => Promise<void> {
  const client = useQueryClient();
  const { slug } = useAccount().summary;
  return useCallback(
    (parts?: readonly Part[]) => askAgain(client, slug, parts ?? takeChanged(slug)),
    [client, slug],
  );
}

/** After something was done: the undo is offered at once, and what it changed is asked for again; so it is after the undo. */
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
