'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { PARTS } from '@/contracts/routes';
import { useAccount } from '../account-context';
import { notePulse } from './freshness';
import { askAgain, useRoutes } from './routes';

const EVERY_MS = 2_000;

/**
 * Feels every two seconds whether somebody else changed something, and asks for everything again when so.
 * @returns whether the server answers
 */
export function usePulse(): { isConnected: boolean } {
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
  return { isConnected: error === null };
}
