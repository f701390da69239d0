'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Name } from '@/contracts/routes';
import type { Progress, Stage } from '@/contracts/work';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { useAccount } from './account-context';
import { useRoutes } from './data/routes';

const SAYS: Record<Stage, string> = {
  days: 'Reading days',
  conflicts: 'Holding keywords against negatives',
  needless: 'Holding negatives against each other',
  duplicates: 'Holding keywords against each other',
  trial: 'Trying it on past days',
};

/** What takes less is not told; how often one that takes more is asked how far it is. */
const [PATIENCE_MS, EVERY_MS] = [800, 400];

/** Of an answer that a screen waits for: `isPlaceholderData` where an older one stands meanwhile. */
type Waited = {
  isPending: boolean;
  isPlaceholderData: boolean;
  fetchStatus: 'fetching' | 'paused' | 'idle';
};

/**
 * Stands above what is waited for: how far that is, and a button that stops it; once it is stopped, one that asks again.
 * @param routes everything that is asked at the same time, and stops together
 */
export function Waiting({ query, routes }: { query: Waited; routes: readonly Name[] }) {
  const { slug } = useAccount().summary;
  const client = useQueryClient();
  const isMissing = query.isPending || query.isPlaceholderData;
  const isLong = useLasting(isMissing && query.fetchStatus === 'fetching', PATIENCE_MS);
  const isStopped = isMissing && query.fetchStatus === 'idle';
  const progress = useProgress(isLong);
  if (!isLong && !isStopped) return null;
  const ofThese = {
    predicate: ({ queryKey: [name, of] }: { queryKey: readonly unknown[] }) =>
      of === slug && routes.includes(name as Name),
  };
  const stop = () => client.cancelQueries(ofThese);
  const lookAgain = () => client.refetchQueries({ ...ofThese, type: 'active' });
  return (
    <div className="flex items-center gap-3 border-b border-line px-3 py-1 text-table">
      <span role="status">{isLong ? sayProgress(progress) : sayStopped(query)}</span>
      {isLong && (
        <progress
          className="w-40"
          aria-label="How far it is"
          {...(progress && progress.of > 0 && { max: progress.of, value: progress.done })}
        />
      )}
      <Button onClick={() => void (isLong ? stop() : lookAgain())}>{isLong ? 'Stop' : 'Look again'}</Button>
    </div>
  );
}

function sayStopped({ isPlaceholderData }: Waited): string {
  return isPlaceholderData ? 'Stopped. What stands here answers another question.' : 'Stopped.';
}

/** How far the oldest request is, of those that tell. */
function useProgress(isAsked: boolean): Progress | undefined {
  const { query } = useRoutes();
  return useQuery({ ...query('GET work'), enabled: isAsked, refetchInterval: EVERY_MS, gcTime: 0 }).data
    ?.work[0];
}

function sayProgress(progress: Progress | undefined): string {
  if (!progress) return 'Looking';
  const { stage, done, of } = progress;
  return `${SAYS[stage]}: ${formatCount(done)} of ${formatCount(of)}`;
}

/** Whether something has been so for some time, and still is. */
function useLasting(is: boolean, ms: number): boolean {
  const [lasts, setLasts] = useState(false);
  useEffect(() => {
    if (!is) return;
    const timer = setTimeout(() => setLasts(true), ms);
    return () => {
      clearTimeout(timer);
      setLasts(false);
    };
  }, [is, ms]);
  return is && lasts;
}
