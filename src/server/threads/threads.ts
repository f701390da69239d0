import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { LRUCache } from 'lru-cache';
import pLimit, { type LimitFunction } from 'p-limit';
import { Piscina } from 'piscina';
import type { Progress } from '@/contracts/work';
import { Refusal } from '../use-cases/deps';
import { createBroker, type Broker, type FromBroker, type ToBroker } from './broker';
import { WRITES, type AnswerOf, type ArgsOf, type Outcome, type RequestName, type Task } from './requests';

/** Worker threads that answer what needs a window in memory, so that the page never waits for another's request. */
export type Threads = {
  /**
   * @param signal takes the request back: what is still being read for it stops
   * @throws Refusal as the use-case does; the signal's reason when it is aborted
   */
  ask<Q extends RequestName>(name: Q, args: ArgsOf<Q>, signal?: AbortSignal): Promise<AnswerOf<Q>>;
  /** how far the requests of an account are that told of it, the oldest first */
  working(slug: string): Progress[];
  counts: Broker['counts'];
  /** the threads themselves */
  pool: Piscina;
  close(): Promise<void>;
};

export type ThreadsOptions = {
  /** the program of a thread */
  file: string;
  execArgv?: string[];
  threads: number;
  /** of shared columns */
  mostBytes: number;
};

export function startThreads({ file, execArgv, threads, mostBytes }: ThreadsOptions): Threads {
  const broker = createBroker(mostBytes);
  const pool = new Piscina({
    filename: file,
    execArgv,
    minThreads: threads,
    maxThreads: threads,
    concurrentTasksPerWorker: 4, // most of a request's time the database is waited for
    atomics: 'disabled', // a thread that waits for its next task must still hear the database
  });

  const underWay = new Map<MessagePort, { slug: string; progress: Progress | null }>();

  async function askOnce(name: RequestName, args: unknown[], signal?: AbortSignal): Promise<Outcome> {
    const { port1, port2 } = new MessageChannel();
    broker.serve(port1);
    const request = { slug: String(args[0]), progress: null as Progress | null };
    underWay.set(port1, request);
    port1.on('message', (message: ToBroker) => {
      if (message.kind !== 'progress') return;
      const { stage, done, of } = message;
      request.progress = { stage, done, of };
    });
    const isTakenBack = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT));
    const takenBack = new Promise<never>((_, reject) => {
      signal?.addEventListener('abort', () => {
        Atomics.store(isTakenBack, 0, 1);
        port1.postMessage({ kind: 'cancel' } satisfies FromBroker);
        reject(signal.reason as Error);
      });
    });
    try {
      const outcome = pool.run(
        { name, args, takenBack: isTakenBack, port: port2 } satisfies Task & { port: MessagePort },
        { transferList: [port2] },
      ) as Promise<Outcome>;
      outcome.catch(() => undefined); // once it is taken back, nobody waits for it
      return await Promise.race([outcome, takenBack]);
    } finally {
      underWay.delete(port1);
      if (!signal?.aborted) port1.close();
    }
  }

  /** Decisions about an account take turns: one that waits for its lock would keep a place in a thread from those who read. */
  const turns = new LRUCache<string, LimitFunction>({ max: MOST_TURNS });
  function turnOf(account: string): LimitFunction {
    let turn = turns.get(account);
    if (!turn) turns.set(account, (turn = pLimit(1)));
    return turn;
  }

  async function askUntilAnswered(
    name: RequestName,
    args: unknown[],
    signal?: AbortSignal,
  ): Promise<unknown> {
    for (let falls = 0; ; falls++) {
      signal?.throwIfAborted();
      try {
        const outcome = await askOnce(name, args, signal);
        if (outcome.ok) return outcome.answer;
        throw new Refusal(outcome.refusal.message, outcome.refusal.status);
      } catch (error) {
        if (!isFall(error) || WRITES.has(name) || falls === MOST_FALLS) throw error;
      }
    }
  }

  return {
    async ask(name, args, signal) {
      const answer = () => askUntilAnswered(name, args, signal);
      const answered = WRITES.has(name) ? turnOf(String(args[0]))(answer) : answer();
      return (await answered) as AnswerOf<typeof name>;
    },
    working: (slug) =>
      [...underWay.values()].flatMap((request) =>
        request.slug === slug && request.progress ? [request.progress] : [],
      ),
    counts: broker.counts,
    pool,
    close: () => pool.destroy(),
  };
}

/** Accounts of which it is known who waits; the lock of an account keeps the order of any other. */
const MOST_TURNS = 1_000;

/** A request that fells so many threads one after another is given up. */
const MOST_FALLS = 2;

/** Whether a thread fell, rather than that the use-case failed. */
function isFall(error: unknown): boolean {
  return error instanceof Error && /^worker exited with code/i.test(error.message);
}
