import type { MessagePort } from 'node:worker_threads';
import { createSnapshots, TakenBack, type DataSource } from '../compute/snapshots';
import type { Snapshot } from '../compute/snapshot';
import { createDeps } from '../container';
import { Refusal, type Deps } from '../use-cases/deps';
import type { FromBroker, ToBroker } from './broker';
import { QUESTIONS, type Outcome, type Task } from './questions';

/** A thread keeps what it made from the shared columns: this many windows. */
const KEPT = 4;

const deps = createDeps({ connections: 4 });
const kept = new Map<string, Promise<Snapshot>>();

/** Answers one question. The port leads to the broker of snapshots, and brings the word to stop. */
export default async function answer({ name, args, port }: Task & { port: MessagePort }): Promise<Outcome> {
  const asked = new AbortController();
  port.on('message', (message: FromBroker) => {
    if (message.kind === 'cancel') asked.abort(new TakenBack('The question was taken back.'));
  });
  const snapshots = createSnapshots(KEPT, sourceOver(port), kept, asked.signal);
  const work = QUESTIONS[name] as (deps: Deps, ...args: unknown[]) => Promise<unknown>;
  try {
    return { ok: true, answer: await work({ ...deps, snapshots }, ...args) };
  } catch (error) {
    if (Refusal.is(error)) return { ok: false, refusal: { message: error.message, status: error.status } };
    throw error;
  } finally {
    port.close();
  }
}

/** Columns that another thread has read are taken as they are; what no one has is read, and offered to all. */
function sourceOver(port: MessagePort): DataSource {
  const say = (message: ToBroker) => port.postMessage(message);
  return (key, load) =>
    new Promise((resolve, reject) => {
      const hear = (message: FromBroker) => {
        if (message.kind === 'cancel' || message.key !== key) return;
        port.off('message', hear);
        if (message.kind === 'here') return resolve(message.data);
        load().then(
          (data) => {
            say({ kind: 'built', key, data });
            resolve(data);
          },
          (error: unknown) => {
            say({ kind: 'failed', key });
            reject(error as Error);
          },
        );
      };
      port.on('message', hear);
      say({ kind: 'want', key });
    });
}
