'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Pulse } from '@/contracts/decisions';
import { ask } from '@/ui/ask';
import { useAccount } from './account-context';

/** Key of the query that feels it. */
export const PULSE = 'pulse';
const EVERY_MS = 2_000;

/** The pulse of each account as it was when its screens were last asked for. */
const known = new Map<string, string>();
const asText = ({ data, decisions }: Pulse) => `${data} ${decisions}`;

/** Notes the pulse as known; a failure to ask is no failure of what was done. */
export async function notePulse(slug: string, api: (path: string) => string): Promise<void> {
  const pulse = await ask<Pulse>(api('pulse')).catch(() => null);
  if (pulse) known.set(slug, asText(pulse));
}

/**
 * Feels every two seconds whether somebody else changed something, and asks for everything again when so.
 * @returns whether the server answers
 */
export function usePulse(): { isConnected: boolean } {
  const { summary, api } = useAccount();
  const { slug } = summary;
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: [PULSE, slug],
    queryFn: () => ask<Pulse>(api('pulse')),
    refetchInterval: EVERY_MS,
    refetchIntervalInBackground: false,
    retry: false,
    networkMode: 'always',
  });
  useEffect(() => {
    if (!data) return;
    const before = known.get(slug);
    known.set(slug, asText(data));
    if (before !== undefined && before !== asText(data))
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== PULSE });
  }, [data, slug, client]);
  return { isConnected: error === null };
}
