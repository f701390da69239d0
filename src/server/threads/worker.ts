import type { MessagePort } from 'node:worker_threads';
import { createSnapshots, keptSnapshots } from '../compute/snapshots';
import { TakenBack } from '../compute/taken-back';
import { createDeps } from '../container';
import { Refusal, type Deps } from '../use-cases/deps';
import type { FromBroker } from './broker';
import { REQUESTS, type Outcome, type Task } from './requests';
import { sourceOver } from './source';

const deps = createDeps({ connections: 4 });
const kept = keptSnapshots();

/** Answers one request. The port leads to the broker of snapshots, and brings the word to stop. */
export default async function answer({ name, args, port }: Task & { port: MessagePort }): Promise<Outcome> {
  const asked = new AbortController();
  port.on('message', (message: FromBroker) => {
    if (message.kind === 'cancel') asked.abort(new TakenBack('The question was taken back.'));
  });
  const snapshots = createSnapshots(sourceOver(port), kept, asked.signal);
  const work = REQUESTS[name] as (deps: Deps, ...args: unknown[]) => Promise<unknown>;
  try {
    return { ok: true, answer: await work({ ...deps, snapshots }, ...args) };
  } catch (error) {
    if (Refusal.is(error)) return { ok: false, refusal: { message: error.message, status: error.status } };
    throw error;
  } finally {
    port.close();
  }
}
