'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BatchAnswer, BatchPlace, BatchWay } from '@/contracts/decisions';
import { useDecide } from '@/screens/frame/data/decide';
import { sayFailure } from '@/screens/tray/use-tray';
import { useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import type { AskedOf } from '@/contracts/routes';
import { counted } from '@/core';

export type Batch = {
  way: BatchWay;
  setWay(way: BatchWay): void;
  place: BatchPlace;
  setPlace(place: BatchPlace): void;
  answer: BatchAnswer | undefined;
  /** it is weighed anew */
  isStale: boolean;
  error: Error | null;
  isBusy: boolean;
  put(): Promise<void>;
  setVerdicts(verdict: { is: 'kept' } | { is: 'aside'; moreClicks: number }): Promise<void>;
};

type Selection = AskedOf<'POST sift/batch'>['body']['selection'];
type GivenVerdict = AskedOf<'POST sift/batch/verdict'>['body']['verdict'];

/**
 * The decision about all marked rows: weighed on the server, put in the tray in one go.
 * @param selection as the server takes it; undefined while nothing is marked
 * @param count of marked rows
 * @param onDone when the rows have been decided
 */
export function useBatch(
  selection: Selection | undefined,
  count: number,
  days: string | null,
  onDone: () => void,
): Batch {
  const terms = counted(count, 'marked term');
  const routes = useRoutes();
  const decide = useDecide();
  const undoable = useUndoable();
  const [way, setWay] = useState<BatchWay>({ by: 'few', limit: 25, mayStopOthers: false });
  const [place, setPlace] = useState<BatchPlace>({ kind: 'own campaign' });
  const [isBusy, setBusy] = useState(false);
  // Nothing is asked while nothing is marked.
  const question = { selection: selection!, way, place, ...(days ? { days } : {}) };
  const query = useQuery({
    ...routes.query('POST sift/batch', { body: question }),
    enabled: selection !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });

  async function run(work: () => Promise<void>) {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      sayFailure(error);
    } finally {
      setBusy(false);
    }
  }

  const put = () =>
    run(async () => {
      const sent = await decide('POST sift/batch/draft', { said: `stop ${terms}` }, { body: question });
      if (sent.state === 'waits') return onDone();
      const { outcomes } = sent.answer;
      const ids = outcomes.flatMap((o) => (o.outcome === 'drafted' ? [o.changeId] : []));
      const held = outcomes.filter((o) => o.outcome === 'held back' || o.outcome === 'refused').length;
      onDone();
      const left = held > 0 ? `; ${held} held back` : '';
      await undoable(`${counted(ids.length, 'change')} put in the tray${left}`, async () => {
        if (ids.length > 0) await routes.call('DELETE tray', { body: { changeIds: ids } });
      });
    });

  const setVerdicts: Batch['setVerdicts'] = (verdict) =>
    run(async () => {
      const give = (wanted: GivenVerdict, chosen: Selection, said: string) =>
        decide(
          'POST sift/batch/verdict',
          { said },
          { body: { selection: chosen, verdict: wanted, ...(days ? { days } : {}) } },
        );
      const sent = await give(
        verdict,
        selection!,
        `${verdict.is === 'kept' ? 'keep' : 'set aside'} ${terms}`,
      );
      if (sent.state === 'waits') return onDone();
      const { said, changed } = sent.answer;
      onDone();
      await undoable(said, async () => {
        if (changed.length > 0) await give({ is: 'open' }, { kind: 'terms', ids: changed }, `undo: ${said}`);
      });
    });

  return {
    ...{ way, setWay, place, setPlace, isBusy, put, setVerdicts },
    answer: query.data,
    isStale: query.isPlaceholderData || query.isFetching,
    error: query.error,
  };
}
