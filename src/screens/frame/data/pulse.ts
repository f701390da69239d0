'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { PARTS } from '@/contracts/routes';
import { NO_ANSWER } from '@/ui/ask';
import { useAccount } from '../account-context';
import { notePulse } from './freshness';
import { askAgain, useRoutes } from './routes';

const EVERY_MS = 2_000;

/**
 * Feels every two seconds whether somebody else changed something, and asks for everything again when so.
 * @returns what is down, in words, and since when no job process was heard of; both null while all is well
 */
export function usePulse(): { trouble: string | null; jobsSilentSince: string | null } {
  const { slug } = useAccount().summary;
  const { query } = useRoutes();
  const client = useQueryClient();
  const { data, error } = useQuery({
    ...query('GET pulse'),
    refetchInterval: EVERY_MS,
    refetchIntervalInBackground: false,
    retry: false,
    networkMode: 'always',
  });
  useEffect(() => {
    if (data && notePulse(slug, data)) void askAgain(client, slug, PARTS);
  }, [data, slug, client]);
  const isLost = error?.message === NO_ANSWER;
  return {
    trouble: isLost ? 'No connection to Gate Post.' : (error?.message ?? null),
    jobsSilentSince: data?.jobsSilentSince ?? null,
  };
}
