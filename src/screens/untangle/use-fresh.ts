'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { KnotKind } from '@/contracts/knots';
import { useAccount } from '@/screens/frame/account-context';
import { call } from '@/screens/frame/data/routes';

const NONE: ReadonlySet<string> = new Set();

/** The look at the knots, noted once while the screen is open and the data stay the same. */
export function useLook() {
  const { slug, dataDays } = useAccount().summary;
  return useQuery({
    queryKey: ['POST untangle/look', slug, dataDays?.to],
    queryFn: ({ signal }) => call(slug, 'POST untangle/look', {}, signal),
    staleTime: Infinity,
  }).data;
}

/** Keys of the knots of a kind that came since the person looked last. */
export function useFresh(kind: KnotKind): ReadonlySet<string> {
  const keys = useLook()?.fresh[kind];
  return useMemo(() => (keys && keys.length > 0 ? new Set(keys) : NONE), [keys]);
}
