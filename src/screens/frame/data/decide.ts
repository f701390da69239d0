'use client';

import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import type { AnswerOf, WriteName } from '@/contracts/routes';
import { ask } from '@/ui/ask';
import { createOutbox, type Outbox, type Sent, type Waiting } from '@/ui/outbox';
import { useAccount } from '../account-context';
import { noteDecision } from './freshness';
import { methodOf, useRoutes, type Asks } from './routes';
import { doing } from './undo';

let outbox: Outbox | undefined;

/** The outbox of this browser; there is none on the server. */
function theOutbox(): Outbox {
  return (outbox ??= createOutbox(window.localStorage, ({ path, method, body, route }) =>
    ask(path, { method, body, onHeaders: (headers) => noteAnswer(route, headers) }),
  ));
}

/** @param route account and name of the route; missing of what an older version has kept */
function noteAnswer(route: string | undefined, headers: Headers): void {
  if (route === undefined) return;
  const at = route.indexOf(' ');
  noteDecision(route.slice(0, at), route.slice(at + 1) as WriteName, headers);
}

/** What a decision is called while it waits for the connection, and the term that it is about. */
export type Naming = Pick<Waiting, 'said' | 'about'>;

/**
 * Sends a decision by a route of the table. Without a connection it is kept here and sent when it is back, and the
 * screen says so.
 * @throws Declined with the server's reason
 */
export function useDecide() {
  const { slug } = useAccount().summary;
  const { address } = useRoutes();
  return async <N extends WriteName>(
    name: N,
    { said, about }: Naming,
    ...asks: Asks<N>
  ): Promise<Sent<AnswerOf<N>>> => {
    const { body } = (asks[0] ?? {}) as { body?: unknown };
    const decision = { path: address(name, ...asks), method: methodOf(name), body, said, about };
    const sent = await doing(theOutbox().send<AnswerOf<N>>({ ...decision, route: `${slug} ${name}` }));
    if (sent.state === 'waits') toast(`No answer. Kept here, and sent when Gate Post is back: ${said}.`);
    return sent;
  };
}

/** What waits for the connection. */
function useOutbox(): readonly Waiting[] {
  return useSyncExternalStore(
    (listener) => theOutbox().listen(listener),
    () => theOutbox().waiting(),
    () => NONE,
  );
}

/** Terms of the account of which a decision waits for the connection. */
export function useWaitingTerms(): ReadonlySet<number> {
  const { slug } = useAccount().summary;
  const waiting = useOutbox();
  const ofAccount = `/api/${slug}/`;
  return useMemo(
    () => new Set(waiting.flatMap(({ about, path }) => (path.startsWith(ofAccount) ? (about ?? []) : []))),
    [waiting, ofAccount],
  );
}

const NONE: readonly Waiting[] = [];

/** Decisions that wait for an answer; they are tried again every few seconds, but for those that are stuck. */
export function useWaiting(onSent: () => void): {
  waiting: readonly Waiting[];
  retry: () => void;
  drop: (id: number) => void;
} {
  const waiting = useOutbox();
  const some = waiting.some(({ stuck }) => stuck === undefined);
  useEffect(() => {
    if (!some) return;
    const box = theOutbox();
    let told = 0;
    box.onOutcome = ({ said, declined }) => {
      told += 1;
      if (declined !== null) toast.error(`Not done, now that the connection is back: ${said}. ${declined}`);
      if (box.waiting().every(({ stuck }) => stuck !== undefined)) {
        toast(`The connection is back: ${told === 1 ? said : `${told} decisions`} sent.`);
        onSent();
      }
    };
    const flush = () => void box.flush();
    const timer = setInterval(flush, 2_000);
    window.addEventListener('online', flush);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', flush);
    };
  }, [some, onSent]);
  return { waiting, retry: () => theOutbox().retry(), drop: (id) => theOutbox().drop(id) };
}
