import { ask, Declined, NoAnswer } from './ask';

/** A decision that waits for the connection: what is to be sent, and what it says. */
export type Waiting = {
  id: number;
  path: string;
  method: string;
  body: unknown;
  said: string;
  /** id of the term that it is about, where it is about one */
  about?: number;
  /** what the sender needs to know of it again when the answer comes */
  route?: string;
  /** how often the server has failed at it */
  tries?: number;
  /** why it is not tried any more, until a person says so */
  stuck?: string;
};

/** What becomes of a decision: answered at once, or kept here until the connection is back. */
export type Sent<T> = { state: 'answered'; answer: T } | { state: 'waits' };

export type Outbox = {
  /** Sends a decision; when nobody answers it is kept and sent later. @throws Declined with the server's reason */
  send<T>(decision: Omit<Waiting, 'id'>): Promise<Sent<T>>;
  /** Tries what waits, oldest first, until nobody answers. */
  flush(): Promise<void>;
  waiting(): readonly Waiting[];
  /** Tries again what is stuck. */
  retry(): void;
  /** Gives up a decision that waits. */
  drop(id: number): void;
  /** Is told whenever something begins or ceases to wait. @returns the way to stop it */
  listen(listener: () => void): () => void;
  /** Is told what was sent late and accepted, or declined with its reason. */
  onOutcome: (outcome: { said: string; declined: string | null }) => void;
};

export type Store = Pick<Storage, 'getItem' | 'setItem'>;

const KEY = 'gatepost-waiting';
/** A decision at which the server fails as often is left out, so that the others can go on. */
const MOST_TRIES = 5;

/**
 * Keeps decisions that could not be sent, in order, over a reload too. Every decision may be sent twice without harm:
 * what is in the tray already is there once, and a verdict given again changes nothing.
 * @param store where they are kept
 * @param send how one is sent
 */
export function createOutbox(
  store: Store,
  send: (decision: Omit<Waiting, 'id'>) => Promise<unknown> = ({ path, method, body }) =>
    ask(path, { method, body }),
): Outbox {
  let waiting: readonly Waiting[] = read(store);
  const listeners = new Set<() => void>();
  let flushing: Promise<void> | null = null;

  function set(next: readonly Waiting[]) {
    waiting = next;
    store.setItem(KEY, JSON.stringify(next));
    for (const listener of listeners) listener();
  }

  const next = () => waiting.find(({ stuck }) => stuck === undefined);

  async function flushAll() {
    for (let first = next(); first !== undefined; first = next()) {
      const { id: decided } = first;
      let declined: string | null = null;
      try {
        await send(first);
      } catch (error) {
        if (error instanceof NoAnswer && !error.isFault) return;
        if (error instanceof NoAnswer) {
          const failed = failedAgain(first, error);
          set(waiting.map((one) => (one.id === failed.id ? failed : one)));
          if (failed.stuck === undefined) return;
          continue;
        }
        declined = error instanceof Declined ? error.message : 'It did not work. Nothing was changed.';
      }
      set(waiting.filter(({ id }) => id !== decided));
      outbox.onOutcome({ said: first.said, declined });
    }
  }

  const outbox: Outbox = {
    async send<T>(decision: Omit<Waiting, 'id'>): Promise<Sent<T>> {
      if (next() === undefined) {
        try {
          return { state: 'answered', answer: (await send(decision)) as T };
        } catch (error) {
          if (!(error instanceof NoAnswer)) throw error;
        }
      }
      set([...waiting, { ...decision, id: (waiting.at(-1)?.id ?? 0) + 1 }]); // behind what waits already
      return { state: 'waits' };
    },
    flush: () => (flushing ??= flushAll().finally(() => (flushing = null))),
    waiting: () => waiting,
    retry: () => set(waiting.map(({ stuck: _, tries: __, ...one }) => one)),
    drop: (id) => set(waiting.filter((one) => one.id !== id)),
    listen(listener) {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    onOutcome: () => undefined,
  };
  return outbox;
}

function failedAgain(decision: Waiting, { message }: NoAnswer): Waiting {
  const tries = (decision.tries ?? 0) + 1;
  return { ...decision, tries, ...(tries >= MOST_TRIES && { stuck: message }) };
}

/** What a browser of an older version left, or someone wrote by hand, is passed over. */
function read(store: Store): Waiting[] {
  try {
    const kept: unknown = JSON.parse(store.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isWaiting) : [];
  } catch {
    return [];
  }
}

function isWaiting(value: unknown): value is Waiting {
  const one = value as Partial<Waiting> | null;
  return typeof one?.path === 'string' && typeof one.method === 'string' && typeof one.said === 'string';
}
