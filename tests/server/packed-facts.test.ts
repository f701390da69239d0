import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { range } from 'd3';
import { loadFacts, type Facts } from '@/server/compute/facts/facts';
import { createSnapshots } from '@/server/compute/snapshots';
import type { TextColumn } from '@/server/repositories/columns/term-columns';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';
import { packFacts } from '@/server/use-cases/intake/pack-facts';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';
import { requireAccount } from '@/server/use-cases/open-workbench';
import { makeOwnWorld, type World } from '../support/world';

const HEAD = 'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions\n';
/** More terms than stand in one piece, over a few days. */
const FIRST = range(17_000).map(
  (i) =>
    `2026-11-0${1 + (i % 3)},Hives,Starter,bee hive,phrase,bee hïve ${i},9,${i % 7},0.${10 + (i % 89)},${i % 50 ? '' : 1}`,
);

let world: World;
beforeAll(async () => {
  const person = 'Maren Oakes';
  world = await makeOwnWorld({ name: 'Packed', currency: 'EUR', steersBy: 'CPA', target: '20', person });
  await world.load(HEAD + FIRST.join('\n'));
});
afterAll(() => world.close());

const textsIn = ({ starts, bytes }: TextColumn, t: number) =>
  Buffer.from(bytes.subarray(starts[t], starts[t + 1])).toString('utf8');

/** Facts and terms, one line each. */
function told(facts: Facts) {
  const { day, termId, adGroupId, keywordId, figures, terms } = facts;
  return {
    facts: range(facts.count)
      .map((f) =>
        [day[f], termId[f], adGroupId[f], keywordId[f], ...figures.subarray(5 * f, 5 * f + 5)].join(' '),
      )
      .sort(),
    terms: range(terms.count).map((t) =>
      [terms.ids[t], terms.kinds[t], textsIn(terms.keys, t), textsIn(terms.raws, t)].join(' '),
    ),
  };
}

/** What is read from the pieces, and what is read without them. */
async function bothWays(within?: { from: string; to: string }) {
  const trx = await world.db.transaction();
  const packed = told(await loadFacts(trx, world.accountId, within));
  await trx('packed_day').delete();
  await trx('packed_terms').delete();
  const plain = told(await loadFacts(trx, world.accountId, within));
  await trx.rollback();
  return { packed, plain };
}

const ofAccount = (table: string) => world.db(table).where({ account_id: world.accountId });

/** Each day that is packed, with the transaction that packed it. */
const packedDays = async (): Promise<Record<string, string>> => {
  const rows = await ofAccount('packed_day').orderBy('day').select('day', world.db.raw('xmin::text as by'));
  return Object.fromEntries(rows.map(({ day, by }: { day: string; by: string }) => [day, by]));
};
const packedTerms = () => ofAccount('packed_terms').orderBy('piece').pluck('piece');

describe('facts that are packed in columns', () => {
  test('are packed behind a load, and are the same as row by row', async () => {
    expect(Object.keys(await packedDays())).toEqual(['2026-11-01', '2026-11-02', '2026-11-03']);
    expect(await packedTerms()).toEqual([0]);
    const { packed, plain } = await bothWays();
    expect(packed.facts).toHaveLength(17_000);
    expect(packed).toEqual(plain);
    const some = await bothWays({ from: '2026-11-02', to: '2026-11-30' });
    expect(some.packed).toEqual(some.plain);
    expect(some.packed.facts.length).toBeLessThan(12_000);
  });

  test('a day that a load changes is packed anew, and no other; so it is when the load is taken back', async () => {
    const before = await packedDays();
    const id = await world.load(`${HEAD}2026-11-02,Hives,Starter,bee hive,phrase,bee hïve 1,9,5,7.00,2
2026-11-05,Hives,Long,long hive,phrase,quite new,1,1,1.00,0\n`);
    const after = await packedDays();
    expect(Object.keys(after)).toEqual(['2026-11-01', '2026-11-02', '2026-11-03', '2026-11-05']);
    expect(after['2026-11-01']).toBe(before['2026-11-01']);
    expect(after['2026-11-02']).not.toBe(before['2026-11-02']);
    const loaded = await bothWays();
    expect(loaded.packed).toEqual(loaded.plain);
    expect(loaded.packed.facts).toHaveLength(17_001);

    await askToTakeBack(world.deps, world.slug, id, world.personId);
    await world.work();
    const back = await bothWays();
    expect(back.packed).toEqual(back.plain);
    expect(back.packed.facts).toHaveLength(17_000);
    expect((await packedDays())['2026-11-01']).toBe(before['2026-11-01']);
  });

  test('what is not packed yet is read row by row beside what is', async () => {
    await ofAccount('packed_day').where({ day: '2026-11-01' }).delete();
    await ofAccount('packed_terms').delete();
    const { packed, plain } = await bothWays();
    expect(packed).toEqual(plain);
    await packFacts(world.deps, world.accountId);
    expect(Object.keys(await packedDays())).toContain('2026-11-01');
    expect(await packedTerms()).toEqual([0]);
  });

  test('terms that become product codes drop every piece', async () => {
    const codes = { productCodePattern: 'bee h.ve \\d+' };
    await changeSettings(world.deps, world.slug, world.personId, codes);
    expect(await packedDays()).toEqual({});
    expect(await packedTerms()).toEqual([]);
    const { packed, plain } = await bothWays();
    expect(packed).toEqual(plain);
    const { terms } = await loadFacts(world.db, world.accountId);
    expect(terms.kinds[0]).toBe(1);
  });

  test('a change of the structure or of a setting reads no fact again', async () => {
    const snapshots = createSnapshots();
    const open = async () => snapshots.get(world.db, await requireAccount(world.deps, world.slug), 30);
    const before = await open();
    const asked: string[] = [];
    world.db.on('query', ({ sql }: { sql: string }) => asked.push(sql));
    const [campaign] = before.mirror.campaigns;
    await setOwnTargets(world.deps, world.slug, world.personId, {
      campaigns: [{ campaignId: campaign!.id, target: '9' }],
      productGroups: [],
    });
    const after = await open();
    expect(after).not.toBe(before);
    expect(after.ownTargets.campaigns).toHaveLength(1);
    expect(after.rows).toBe(before.rows);
    expect(after.served.table).toBe(before.served.table);
    expect(asked.filter((sql) => /term_day|packed/.test(sql))).toEqual([]);
  });
});
