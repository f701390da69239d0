import path from 'node:path';
import { createDeps } from './container';
import { readerOutside } from './files/reader/reader-outside';
import { readCompany } from './sign-in/read-company';
import { createSignIns, type SignIns } from './sign-in/sign-ins';
import { startThreads, type Threads } from './threads/threads';
import type { Deps } from './use-cases/deps';
import { findDataVersions, warmerOf } from './use-cases/warm-up';

export { isAway } from './db/away';
export { webLog } from './log';

/** As many as a small machine has processors; what they share counts once. */
const THREADS = 2;
const MOST_BYTES = 1_000_000_000;

const HOME = Symbol.for('gate-post.web');
type Home = { [HOME]?: { deps?: Deps; threads?: Threads; signIns?: SignIns } };

/** What the web process holds once. Development reloads modules and keeps this. */
function home() {
  return ((globalThis as Home)[HOME] ??= {});
}

/** What signs people in; made when it is first asked. */
export function webSignIns(): SignIns {
  return (home().signIns ??= createSignIns({
    databaseUrl: process.env.GATEPOST_DATABASE_URL!,
    secret: process.env.GATEPOST_SECRET!,
    isSecure: process.env.GATEPOST_TLS === '1',
    company: readCompany(process.env),
  }));
}

export function webDeps(): Deps {
  return (home().deps ??= createDeps({
    reader: readerOutside(path.join(process.cwd(), 'dist', 'files.mjs')),
  }));
}

export function webThreads(): Threads {
  return (home().threads ??= startThreads({
    file: path.join(process.cwd(), 'dist', 'compute.mjs'),
    threads: THREADS,
    mostBytes: MOST_BYTES,
  }));
}

/** Makes windows ready in the threads; each call looks once. */
export function webWarmer(): () => Promise<void> {
  return warmerOf(
    () => findDataVersions(webDeps()),
    (slug) => webThreads().ask('warmUp', [slug]),
  );
}
