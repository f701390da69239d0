'use client';

import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { createOutbox, type Outbox, type Sent, type Waiting } from '@/ui/outbox';
import { useAccount } from './account-context';
import { doing } from './undo';

let outbox: Outbox | undefined;

/** The outbox of this browser; there is none on the server. */
function theOutbox(): Outbox {
  return (outbox ??= createOutbox(window.localStorage));
}

/**
 * Sends a decision. Without a connection it is kept here and sent when it is back, and the screen says so.
 * @throws Declined with the server's reason
 */
export async function decide<T>(decision: Omit<Waiting, 'id'>): Promise<Sent<T>> {
  const sent = await doing(theOutbox().send<T>(decision));
  if (sent.state === 'waits') toast(`No connection. Kept here, and sent when it is back: ${decision.said}.`);
  return sent;
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
  const { api } = useAccount();
  const waiting = useOutbox();
  const ofAccount = api('');
  return useMemo(
    () => new Set(waiting.flatMap(({ about, path }) => (path.startsWith(ofAccount) ? (about ?? []) : []))),
    [waiting, ofAccount],
  );
}

const NONE: readonly Waiting[] = [];

/** Decisions that wait for the connection; they are tried again every few seconds. */
export function useWaiting(onSent: () => void): readonly Waiting[] {
  const waiting = useOutbox();
  const some = waiting.length > 0;
  useEffect(() => {
    if (!some) return;
    const box = theOutbox();
    let told = 0;
    box.onOutcome = ({ said, declined }) => {
      told += 1;
      if (declined !== null) toast.error(`Not done, now that the connection is back: ${said}. ${declined}`);
      if (box.waiting().length === 0) {
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
  return waiting;
}
