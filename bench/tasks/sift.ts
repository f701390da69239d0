import * as v from 'valibot';
import { TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { bytesOf } from '@/server/compute/shared-columns';
import { createDeps } from '@/server/container';
import { findAccount } from '@/server/repositories/account/accounts';
import { listTerms, listWords } from '@/server/use-cases/sift/sift-terms';
import { withFreshDemo } from '../../scripts/steps/fresh-demo';
import { environmentOf, readSettings, type Settings } from '../../scripts/steps/settings';
import { makeAccount } from '../account';
import { fillAccount, SLUG } from '../fill-account';
import { benchBrowser } from '../browser';
import { count, ms, type Line } from '../measure';

/** Twenty campaigns with fifty ad groups each, and ten lists, each on two of them. */
const SHAPE = {
  campaigns: 20,
  groups: 50,
  lists: 10,
  nameOf: (c: number) => `Campaign ${c}`,
  hangs: (list: number, campaign: number) => campaign % 10 === list,
  since: null,
};

/** Sift over an account of 600,000 terms with 5,000 negatives in force, in a browser. */
export async function benchSift(quick: boolean): Promise<Line[]> {
  const [terms, negatives] = quick ? [60_000, 1_000] : [600_000, 5_000];
  const settings = readSettings('test');
  return withFreshDemo(settings, { scale: 0.02, hasPast: false }, async (address) => {
    await fillAccount(settings, makeAccount(terms, negatives), SHAPE);
    const size = `${count(terms)} terms, ${count(negatives)} negatives`;
    const memory = await measureSnapshot(settings, size);
    const lines = await benchBrowser(`${address}/${SLUG}/sift?days=60`, size, quick);
    return [memory, ...lines];
  });
}

const MOST_SNAPSHOT_MB = 400;

/** What a process takes more once it has a window, what is made from it, and has answered from it. */
async function measureSnapshot(settings: Settings, size: string): Promise<Line> {
  Object.assign(process.env, environmentOf(settings));
  const deps = createDeps();
  // What is shared between threads does not count as external to any of them, and is added.
  const taken = () => {
    globalThis.gc?.();
    const { heapUsed, external } = process.memoryUsage();
    return heapUsed + external;
  };
  try {
    const before = taken();
    const start = performance.now();
    const query = v.parse(TermsQuerySchema, { days: '60' });
    await listTerms(deps, SLUG, query);
    const took = performance.now() - start;
    await listWords(deps, SLUG, v.parse(WordsQuerySchema, { days: '60' }));
    const account = (await findAccount(deps.db, SLUG))!;
    const { rows, terms } = await deps.snapshots.get(deps.db, account, 60);
    const megabytes = Math.round((taken() - before + bytesOf(rows, terms)) / 1e6);
    return {
      ...{ task: 'a snapshot: read, and all that is made from it', size, ours: ms(took) },
      ...{ against: `limit: ${MOST_SNAPSHOT_MB} MB`, ratio: (megabytes / MOST_SNAPSHOT_MB).toFixed(2) },
      verdict: megabytes <= MOST_SNAPSHOT_MB ? `within: ${megabytes} MB` : 'OVER',
    };
  } finally {
    await deps.db.destroy();
  }
}
