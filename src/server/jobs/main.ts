import { createDeps } from '../container';
import { startWorker } from './worker';

const url = process.env.GATEPOST_DATABASE_URL;
if (!url) throw new Error('GATEPOST_DATABASE_URL must be set');

const deps = createDeps();
const worker = await startWorker(deps, url);

for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    void worker
      .stop()
      .then(() => deps.db.destroy())
      .then(() => process.exit(0));
  });
}
