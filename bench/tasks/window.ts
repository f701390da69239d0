import path from 'node:path';
import type { PoolClient } from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import * as v from 'valibot';
import { TermsQuerySchema } from '@/contracts/sift';
import { createSnapshots } from '@/server/compute/snapshots';
import { createDeps } from '@/server/container';
import { findAccount } from '@/server/repositories/account/accounts';
import type { Deps } from '@/server/use-cases/deps';
import { askForLoad, takeIn } from '@/server/use-cases/intake/take-in';
import { stateOfLoad } from '@/server/use-cases/set-up';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { withFreshDemo } from '../../scripts/steps/fresh-demo';
import { environmentOf, readSettings } from '../../scripts/steps/settings';
import { makeAccount } from '../account';
import { fillAccount, SLUG, type Shape } from '../fill-account';
import { benchOutlook } from '../outlook';
import { count, median, ms, timedOnce, type Line } from '../measure';

const SHAPE: Shape = {
  ...{ campaigns: 20, groups: 50, lists: 10, since: null },
  nameOf: (c) => `Campaign ${c}`,
  hangs: (list, campaign) => campaign % 10 === list,
};

/** Times of the bare reading that the first rows may take: of a process that knows nothing, and after a change. */
const MOST = { cold: 3, changed: 0.3 };
const QUERY = v.parse(TermsQuerySchema, { days: '60' });

/**
 * The first rows of Sift over a large account, against COPY of the rows that they are made from: in a process that knows nothing,
 * after a change of the structure, and after a load of one day.
 */
export async function benchWindow(quick: boolean): Promise<Line[]> {
  const [terms, negatives] = quick ? [60_000, 1_000] : [600_000, 5_000];
  const settings = readSettings('test');
  return withFreshDemo(settings, { scale: 0.02, hasPast: false }, async () => {
    await fillAccount(settings, makeAccount(terms, negatives), SHAPE);
    Object.assign(process.env, environmentOf(settings));
    const deps = { ...createDeps(), files: path.join(settings.data, 'files') };
    try {
      const { id } = (await findAccount(deps.db, SLUG))!;
      const [bare, cold, structure, load]: number[][] = [[], [], [], []];
      for (let round = 0; round <= (quick ? 3 : 5); round++) {
        const own: Deps = { ...deps, snapshots: createSnapshots() };
        const times = {
          bare: await timedOnce(() => readBare(own, id)),
          cold: await timedOnce(() => listTerms(own, SLUG, QUERY)),
          structure: await afterChange(own, () =>
            own.db('account').where({ account_id: id }).increment('data_version', 1),
          ),
          load: await afterChange(own, () => loadDay(own, round)),
        };
        if (round === 0) continue; // warms up
        bare!.push(times.bare);
        cold!.push(times.cold);
        structure!.push(times.structure);
        load!.push(times.load);
      }
      const line = (task: string, ours: number[], most: number): Line => {
        const ratio = median(ours.map((own, i) => own / bare![i]!));
        return {
          ...{ task, size: `${count(terms)} terms, ${count(negatives)} negatives`, ours: ms(median(ours)) },
          against: `limit: ${most} × COPY of the same rows (${ms(median(bare!))})`,
          ...{ ratio: (ratio / most).toFixed(2), verdict: ratio <= most ? 'within' : 'OVER' },
        };
      };
      return [
        line('a window opens, nothing known', cold!, MOST.cold),
        line('— after a change of the structure', structure!, MOST.changed),
        line('— after a load of one day', load!, MOST.changed),
        ...(await benchOutlook(deps, SLUG, 60, `${count(terms)} terms, ${count(negatives)} negatives`)),
      ];
    } finally {
      await deps.db.destroy();
    }
  });
}

async function afterChange(deps: Deps, change: () => PromiseLike<unknown>): Promise<number> {
  await change();
  return timedOnce(() => listTerms(deps, SLUG, QUERY));
}

async function loadDay(deps: Deps, round: number): Promise<void> {
  const rows = Array.from(
    { length: 2_000 },
    (_, i) => `2026-11-20,Campaign 1,Group 1,late ${round} ${i},9,${i % 5},0.50,0`,
  );
  const report = ['Day,Campaign,Ad group,Search term,Impressions,Clicks,Cost,Conversions', ...rows].join(
    '\n',
  );
  async function* bytes() {
    yield Buffer.from(report);
  }
  const [file] = await takeIn(deps, SLUG, { name: 'day.csv', source: 'file', personId: 1 }, bytes());
  await askForLoad(deps, SLUG, file!.id, {});
  for (;;) {
    const { state, error } = (await stateOfLoad(deps, SLUG, file!.id))!;
    if (state === 'failed') throw new Error(error ?? 'the load failed');
    const packed = await deps.db('packed_day').where({ day: '2026-11-20' }).first('day');
    if (state === 'loaded' && packed) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** The rows as the database sends them, thrown away. */
async function readBare({ db }: Deps, accountId: number): Promise<void> {
  const facts = `select day, ad_group_id, keyword_id, term_id, impressions, clicks, cost_micros, conversions, value_micros
                   from term_day where account_id = ${accountId}`;
  const terms = `select term_id, kind, key, raw from term where account_id = ${accountId}`;
  await db.transaction(async (trx) => {
    const client = (await trx.client.acquireConnection()) as PoolClient;
    for (const query of [facts, terms]) {
      const stream = client.query(copyTo(`copy (${query}) to stdout (format binary)`));
      for await (const _ of stream);
    }
  });
}
