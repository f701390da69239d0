import type { MessagePort } from 'node:worker_threads';
import type { Progress } from '@/contracts/work';
import { withProgress } from '../compute/progress';
import { createSnapshots, keptSnapshots } from '../compute/snapshots';
import { TakenBack } from '../compute/taken-back';
import { createDeps } from '../container';
import { Refusal, type Deps } from '../use-cases/deps';
import type { FromBroker, ToBroker } from './broker';
import { REQUESTS, type Outcome, type Task } from './requests';
import { sourceOver } from './source';

const deps = createDeps({ connections: 4 });
const kept = keptSnapshots();

/** Progress is told no oftener, ms. */
const TELL_EVERY = 100;

/** Answers one request. The port leads to the broker of snapshots, and brings the word to stop. */
export default async function answer({
  name,
  args,
  takenBack,
  port,
}: Task & { port: MessagePort }): Promise<Outcome> {
  const asked = new AbortController();
  port.on('message', (message: FromBroker) => {
    if (message.kind === 'cancel') asked.abort(new TakenBack('The question was taken back.'));
  });
  const snapshots = createSnapshots(sourceOver(port), kept, asked.signal);
  const work = REQUESTS[name] as (deps: Deps, ...args: unknown[]) => Promise<unknown>;
  let toldAt = -Infinity;
  const hear = (progress: Progress) => {
    if (Atomics.load(takenBack, 0) === 1) throw new TakenBack('The question was taken back.');
    if (progress.done < progress.of && performance.now() - toldAt < TELL_EVERY) return;
    toldAt = performance.now();
    port.postMessage({ kind: 'progress', ...progress } satisfies ToBroker);
  };
  try {
    return { ok: true, answer: await withProgress(hear, () => work({ ...deps, snapshots }, ...args)) };
  } catch (error) {
    if (Refusal.is(error)) return { ok: false, refusal: { message: error.message, status: error.status } };
    throw error;
  } finally {
    port.close();
  }
}
