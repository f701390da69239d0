'use client';

import { queryOptions, type QueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  addressOf,
  isStale,
  ROUTES,
  type AnswerOf,
  type AskedOf,
  type Name,
  type Part,
  type Route,
  type WriteName,
} from '@/contracts/routes';
import { ask, SignedOut } from '@/ui/ask';
import { useAccount } from '../account-context';
import { noteDecision } from './freshness';
import { leaveToSignIn } from './leave-to-sign-in';

/** A route in which nothing must be given takes nothing. */
export type Asks<N extends Name> =
  Record<never, never> extends AskedOf<N> ? [asked?: AskedOf<N>] : [asked: AskedOf<N>];
type Given = {
  params?: Record<string, string | number>;
  query?: Record<string, unknown>;
  body?: unknown;
};

/**
 * Asks by a route of the table. What a decision changes is noted, and asked for again by the next `useRefresh`. Where the
 * session has ended meanwhile, the page to sign in comes up, and leads back.
 * @param account its slug; empty for a route of the whole of Gate Post
 * @throws Declined with the server's reason; NoAnswer where nobody answers
 */
export async function call<N extends Name>(
  account: string,
  name: N,
  asked: AskedOf<N>,
  signal?: AbortSignal,
): Promise<AnswerOf<N>> {
  const { params, query, body } = asked as Given;
  try {
    return await ask<AnswerOf<N>>(addressOf(name, account, params, query), {
      ...{ method: methodOf(name), signal, ...(body !== undefined && { body }) },
      onHeaders: (headers) => isWrite(name) && noteDecision(account, name, headers),
    });
  } catch (error) {
    const { role }: Route = ROUTES[name];
    if (error instanceof SignedOut && role !== 'anybody') leaveToSignIn();
    throw error;
  }
}

/** A query by a route of the table; its key is made of the route and what is asked. */
function queryOf<N extends Name>(account: string, name: N, asked: AskedOf<N>) {
  return queryOptions({
    queryKey: [name, account, asked] as const,
    queryFn: ({ signal }) => call(account, name, asked, signal),
  });
}

/** A query by a route of the whole of Gate Post, outside of every account. */
export const ownQuery = <N extends Name>(name: N) => queryOf('', name, {} as AskedOf<N>);

/** Asks again for the answers about an account that are made of some parts, where they are on the screen. */
export async function askAgain(client: QueryClient, account: string, parts: readonly Part[]): Promise<void> {
  await client.invalidateQueries({
    predicate: ({ queryKey: [name, of] }) =>
      of === account && (name as string) in ROUTES && isStale(name as Name, parts),
  });
}

export function methodOf(name: Name): string {
  return name.slice(0, name.indexOf(' '));
}

function isWrite(name: Name): name is WriteName {
  return (ROUTES[name] as Route).changes !== undefined;
}

/** The routes of the account on the screen. */
export function useRoutes() {
  const { slug } = useAccount().summary;
  return useMemo(
    () => ({
      /** Asks, or decides. @throws Declined with the server's reason; NoAnswer where nobody answers */
      call: <N extends Name>(name: N, ...[asked]: Asks<N>) => call(slug, name, asked ?? ({} as AskedOf<N>)),
      /** A query, for `useQuery`. */
      query: <N extends Name>(name: N, ...[asked]: Asks<N>) =>
        queryOf(slug, name, asked ?? ({} as AskedOf<N>)),
      /** Where a file is to be saved from. */
      address: <N extends Name>(name: N, ...[asked]: Asks<N>) => {
        const { params, query } = (asked ?? {}) as Given;
        return addressOf(name, slug, params, query);
      },
    }),
    [slug],
  );
}
