import type { MessagePort } from 'node:worker_threads';
import type { Progress } from '@/contracts/work';
import { bytesOf } from '../compute/shared-columns';
import type { SharedData } from '../compute/snapshots';

/** What a thread asks and tells over its port … */
export type ToBroker =
  | { kind: 'want'; key: string }
  | { kind: 'built'; key: string; data: SharedData }
  | { kind: 'failed'; key: string }
  | ({ kind: 'progress' } & Progress);
/** … and what it hears. */
export type FromBroker =
  { kind: 'here'; key: string; data: SharedData } | { kind: 'build'; key: string } | { kind: 'cancel' };

/**
 * Sees to it that a snapshot is built by one thread and seen by all: the columns lie in shared memory, so handing them
 * on copies nothing. What a thread was building when it fell is built by the next that waits for it.
 */
export type Broker = {
  /** Serves a port until it closes. */
  serve(port: MessagePort): void;
  /** how many snapshots were built, are held, and take how many bytes */
  counts(): { built: number; held: number; bytes: number };
};

/** @param mostBytes of columns held; the least recently used go first, the newest always stays */
export function createBroker(mostBytes: number): Broker {
  const held = new Map<string, { data: SharedData; bytes: number }>();
  const building = new Map<string, { by: MessagePort; waiting: MessagePort[] }>();
  let built = 0;

  const say = (port: MessagePort, message: FromBroker) => port.postMessage(message);
  const bytes = () => [...held.values()].reduce((sum, entry) => sum + entry.bytes, 0);

  function want(port: MessagePort, key: string) {
    const there = held.get(key);
    if (there) {
      held.delete(key);
      held.set(key, there); // used last
      say(port, { kind: 'here', key, data: there.data });
      return;
    }
    const work = building.get(key);
    if (work) work.waiting.push(port);
    else {
      building.set(key, { by: port, waiting: [] });
      say(port, { kind: 'build', key });
    }
  }

  function keep(key: string, data: SharedData) {
    built += 1;
    held.set(key, { data, bytes: bytesOf(data.rows, data.terms, data) });
    for (const oldest of held.keys()) {
      if (oldest === key || bytes() <= mostBytes) break;
      held.delete(oldest);
    }
    for (const port of building.get(key)?.waiting ?? []) say(port, { kind: 'here', key, data });
    building.delete(key);
  }

  function giveUp(key: string) {
    const [next, ...waiting] = building.get(key)?.waiting ?? [];
    building.delete(key);
    if (!next) return;
    building.set(key, { by: next, waiting });
    say(next, { kind: 'build', key });
  }

  return {
    serve(port) {
      port.on('message', (message: ToBroker) => {
        if (message.kind === 'want') want(port, message.key);
        else if (message.kind === 'built') keep(message.key, message.data);
        else if (message.kind === 'failed') giveUp(message.key);
      });
      port.on('close', () => {
        for (const [key, work] of [...building]) {
          work.waiting = work.waiting.filter((other) => other !== port);
          if (work.by === port) giveUp(key);
        }
      });
    },
    counts: () => ({ built, held: held.size, bytes: bytes() }),
  };
}
