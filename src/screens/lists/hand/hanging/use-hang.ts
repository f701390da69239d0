'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { HangingsQuery } from '@/contracts/lists';
import type { Change } from '@/core';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import type { Hanging } from './hangings';
import { useRoutes } from '@/screens/frame/data/routes';

/** What hanging lists on campaigns would do; nothing is asked while there is none of either. */
export function useHangings(query: HangingsQuery | null) {
  const routes = useRoutes();
  return useQuery({
    ...routes.query('POST lists/hangings', { body: query! }),
    enabled: query !== null,
  });
}

/** Hangs lists or takes them down, in the tray. What is held back waits for a reason. */
export function useHang() {
  const { draft } = useTrayActions();
  const [held, setHeld] = useState<{
    said: string;
    count: number;
    retry: (because: string) => Promise<void>;
  } | null>(null);
  async function turn(hangings: readonly Hanging[], hang: boolean, forcedBecause?: string): Promise<void> {
    if (hangings.length === 0) return;
    if (hangings.length > 10_000) {
      sayFailure(new Error('These are more than 10,000 changes at once. Mark fewer. Nothing was changed.'));
      return;
    }
    const changes = hangings.map(({ listId, campaignId }): { change: Change; forcedBecause?: string } => ({
      change: { kind: hang ? 'hang list' : 'take down list', listId, campaignId },
      forcedBecause,
    }));
    const outcomes = await draft(changes);
    const back = hangings.filter((_, i) => outcomes[i]?.outcome === 'held back');
    const [first] = outcomes.filter((o) => o.outcome === 'held back');
    setHeld(
      first ? { said: first.said, count: back.length, retry: (because) => turn(back, hang, because) } : null,
    );
  }
  return { turn, held, leave: () => setHeld(null) };
}
