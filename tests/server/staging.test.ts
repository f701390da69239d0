import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { ReportRow } from '@/core';
import { openStaging } from '@/server/repositories/load/staging';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const number = fc.option(fc.constantFrom(0, 1, 7, 2 ** 31, 9e12));
const row: fc.Arbitrary<ReportRow> = fc.record({
  line: fc.constant(1),
  term: fc.constantFrom('oak hive', 'Oak-Hive', 'pine hive', 'ümläut\thive', 'back\\slash', '?!'),
  campaign: fc.constantFrom('Staged', ''),
  adGroup: fc.constantFrom('One', 'Two'),
  keyword: fc.constantFrom('bee hive', 'Bee Hive', 'hive', null),
  match: fc.constantFrom('broad', 'exact', null),
  day: fc.constantFrom('2025-03-01', '2025-03-02', '2025-02-28'),
  ...{ impressions: number, clicks: number, costMicros: number, valueMicros: number },
  conversions: fc.option(fc.constantFrom(0, 0.5, 2.25)),
});

/** What comes to stand in the facts, in a transaction that is rolled back; of an account that has some, or a new one. */
async function stored(rows: readonly ReportRow[], { mostRows, isFirst = false }: How = {}) {
  const trx = await world.db.transaction();
  try {
    const accountId = isFirst ? await addAccount(trx) : world.accountId;
    const staging = openStaging(trx, () => false, mostRows);
    for (let at = 0; at < rows.length; at += 3) await staging.write(rows.slice(at, at + 3));
    const outcome = await staging.merge({ accountId, reportFileId: 77 }, () => Promise.resolve());
    const facts: Record<string, unknown>[] = await trx('term_day as f')
      .join('term as t', { 't.account_id': 'f.account_id', 't.term_id': 'f.term_id' })
      .join('keyword as k', 'k.keyword_id', 'f.keyword_id')
      .join('ad_group as g', 'g.ad_group_id', 'k.ad_group_id')
      .where({ 'f.account_id': accountId, 'f.report_file_id': 77 })
      .orderBy(['f.day', 'g.campaign_id', 'g.name', 'k.text_key', 'k.match', 't.key'])
      .select('f.day', 'g.name', 'k.text_key', 'k.match', 't.key', 't.kind')
      .select('f.impressions', 'f.clicks', 'f.cost_micros', 'f.conversions', 'f.value_micros');
    return { outcome, facts };
  } finally {
    await trx.rollback();
  }
}

type How = { mostRows?: number; isFirst?: boolean };

async function addAccount(trx: Knex.Transaction): Promise<number> {
  const account = { slug: 'new', name: 'New', platform_account_id: 'new', currency: 'EUR', steers_by: 'CPA' };
  const [row] = await trx('account').insert(account).returning('account_id');
  return row.account_id;
}

test('rows that go straight into the facts and rows that take the way over a table come to the same', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 25 }), async (rows) => {
      const straight = await stored(rows);
      const ways: How[] = [{ mostRows: 4 }, { isFirst: true }, { isFirst: true, mostRows: 4 }];
      for (const way of ways) expect(await stored(rows, way)).toEqual(straight);
      expect(straight.outcome.added).toBe(straight.facts.length);
      const cost = (of: readonly (number | null)[]) => of.reduce<number>((sum, one) => sum + (one ?? 0), 0);
      expect(cost(straight.facts.map((f) => f.cost_micros as number | null))).toBe(
        cost(rows.map((r) => r.costMicros)),
      );
    }),
    { numRuns: 40 },
  );
});

test('keywords that are written differently and mean the same are one', async () => {
  const base = { line: 1, term: 'oak hive', campaign: 'Staged', adGroup: 'One', match: 'broad' as const };
  const figures = { impressions: 1, clicks: 1, costMicros: 10, conversions: null, valueMicros: null };
  const { facts } = await stored([
    { ...base, ...figures, keyword: 'bee hive', day: '2025-03-01' },
    { ...base, ...figures, keyword: 'Bee  Hive', day: '2025-03-01' },
  ]);
  expect(facts).toMatchObject([{ text_key: 'bee hive', clicks: 2, cost_micros: 20, conversions: null }]);
});

test('a report without a row adds nothing', async () => {
  expect(await stored([])).toEqual({ outcome: { added: 0, replaced: 0, newTerms: 0 }, facts: [] });
});

/** A file for a load that replaces something: what it replaces is kept with it. */
const aFile = (account_id: number) => ({
  ...{ account_id, name: 'again.csv', source: 'file', digest: '', size_bytes: 0, stored_as: '' },
  state: 'loading',
});

test('an account has a part of its own once something is loaded, and its keys hold', async () => {
  const accountId = await world.db.transaction(addAccount);
  const load = (reportFileId: number, day: string) =>
    world.db.transaction(async (trx) => {
      const staging = openStaging(trx, () => false);
      const figures = { impressions: 1, clicks: 1, costMicros: 10, conversions: null, valueMicros: null };
      const names = { campaign: 'New', adGroup: 'One', keyword: null, match: null };
      await staging.write([{ line: 1, term: 'oak hive', day, ...names, ...figures }]);
      return staging.merge({ accountId, reportFileId }, () => Promise.resolve());
    });
  expect(await load(1, '2025-03-01')).toEqual({ added: 1, replaced: 0, newTerms: 1 });
  expect(await load(2, '2025-03-02')).toEqual({ added: 1, replaced: 0, newTerms: 0 });
  const [file] = await world.db('report_file').insert(aFile(accountId)).returning('report_file_id');
  expect(await load(file.report_file_id, '2025-03-01')).toEqual({ added: 0, replaced: 1, newTerms: 0 });
  const [there] = await world.db('term').where({ account_id: accountId });
  await expect(world.db('term').insert({ ...there, term_id: 0 })).rejects.toThrow(/duplicate key/);
});
