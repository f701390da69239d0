import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { convertingTexts, type History } from '@/server/compute/history/history';
import { allDaysOf } from '@/server/compute/history/all-days';
import { createSnapshots, keptSnapshots } from '@/server/compute/snapshots';
import { keyAt, kindAt } from '@/server/compute/window-columns';
import { loadConvertingTerms } from '@/server/repositories/facts';
import { requireAccount } from '@/server/use-cases/open-workbench';
import { makeOwnWorld, type World } from '../support/world';

/** Unknown conversions, several keywords of an ad group, a product code, the unreported rest, and days of the lag. */
const REPORT = `Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions
2026-09-01,Hives,Starter,bee hive,phrase,old hive,90,9,4.50,1
2026-09-01,Hives,Starter,hive,broad,old hive,10,1,0.50,0
2026-11-10,Hives,Starter,bee hive,phrase,old hive,20,2,1.00,0.5
2026-11-10,Hives,Long,long hive,phrase,old hive,20,3,1.00,0
2026-11-10,Hives,Long,long hive,phrase,unknown hive,20,4,1.00,
2026-11-11,Hives,Long,long hive,phrase,LK-2041,20,5,1.00,1
2026-11-11,Hives,Long,long hive,phrase,(unreported),20,6,1.00,1
2026-11-20,Hives,Long,long hive,phrase,new hive,20,7,1.00,0
2026-11-20,Hives,Long,long hive,phrase,old hive,20,7,1.00,7
`;

let world: World;
beforeAll(async () => {
  const own = {
    name: 'History',
    currency: 'EUR',
    steersBy: 'CPA',
    target: '20',
    person: 'Maren Oakes',
  } as const;
  world = await makeOwnWorld(own);
  await world.db('account').where({ slug: world.slug }).update({ product_code_pattern: '[A-Z]{2}-\\d{4}' });
  await world.load(REPORT);
});
afterAll(() => world.close());

/** What a history says, one line a term and ad group. */
const told = ({ terms, rows }: History) =>
  Array.from({ length: rows.count }, (_, r) => {
    const t = rows.termOf[r]!;
    const group = rows.adGroupId[r]!;
    const figures = [rows.clicks[r], rows.conversions[r], rows.costMicros[r]! / 1e6];
    return [kindAt(terms, t), keyAt(terms, t), group, ...figures];
  });

const snapshotOf = async (days: number) => {
  const account = await requireAccount(world.deps, world.slug);
  return createSnapshots().get(world.db, account, days);
};

describe('the history of an account', () => {
  test('sums each term in each ad group over all days but those of the lag', async () => {
    const { history } = await snapshotOf(30);
    expect(history.days).toEqual({ from: '2026-09-01', to: '2026-11-18' });
    const lines = told(history).map(([kind, key, , ...figures]) => [kind, key, ...figures]);
    expect(lines).toEqual(
      expect.arrayContaining([
        ['query', 'old hive', 12, 1.5, 6],
        ['query', 'old hive', 3, 0, 1],
        ['query', 'unknown hive', 4, NaN, 1],
        ['code', expect.stringMatching(/^lk-2041$/i), 5, 1, 1],
      ]),
    );
    expect(lines).toHaveLength(4); // neither the unreported rest, nor what ran in the lag alone
  });

  test('is the same whatever window is looked at', async () => {
    const [short, whole] = [await snapshotOf(30), await snapshotOf(366)];
    expect(told(whole.history)).toEqual(told(short.history));
    expect(short.rows.count).toBeLessThan(whole.rows.count);
  });

  test('says which queries earned enough to be protected, by the days of the lag too', async () => {
    const { history } = await snapshotOf(30);
    expect(convertingTexts(history, 8)).toEqual(['old hive']); // 1.5, and 7 in the lag
    expect(convertingTexts(history, 9)).toEqual([]);
    expect(convertingTexts(history, 0)).toEqual(['new hive', 'old hive']); // of the other nothing is known
    expect(convertingTexts(history, null)).toEqual([]);
    const { id } = await requireAccount(world.deps, world.slug);
    for (const keeper of [0, 1, 8, 9, null])
      expect(convertingTexts(history, keeper)).toEqual(await loadConvertingTerms(world.db, id, keeper));
  });

  test('the terms of a window find their sums in it', async () => {
    const snapshot = await snapshotOf(30);
    const allDays = allDaysOf(snapshot);
    const of = (key: string) => {
      const t = Array.from({ length: snapshot.terms.count }, (_, i) => keyAt(snapshot.terms, i)).indexOf(key);
      return [allDays.clicks[t], allDays.conversions[t]];
    };
    expect(of('old hive')).toEqual([15, 1.5]);
    expect(of('unknown hive')).toEqual([4, NaN]);
  });
});

test('snapshots are kept by the bytes that they take; the newest stays, whatever it takes', async () => {
  const account = await requireAccount(world.deps, world.slug);
  const roomy = createSnapshots(undefined, keptSnapshots());
  const tight = createSnapshots(undefined, keptSnapshots(1));
  const first = {
    roomy: await roomy.get(world.db, account, 30),
    tight: await tight.get(world.db, account, 30),
  };
  expect(await tight.get(world.db, account, 30)).toBe(first.tight);
  await roomy.get(world.db, account, 60);
  await tight.get(world.db, account, 60);
  expect(await roomy.get(world.db, account, 30)).toBe(first.roomy);
  expect(await tight.get(world.db, account, 30)).not.toBe(first.tight);
});
