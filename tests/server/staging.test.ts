import fc from 'fast-check';
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

/** What comes to stand in the facts, in a transaction that is rolled back. */
async function stored(rows: readonly ReportRow[], mostRows?: number) {
  const trx = await world.db.transaction();
  try {
    const staging = openStaging(trx, () => false, mostRows);
    for (let at = 0; at < rows.length; at += 3) await staging.write(rows.slice(at, at + 3));
    const outcome = await staging.merge({ accountId: world.accountId, reportFileId: 77 }, () =>
      Promise.resolve(),
    );
    const facts: Record<string, unknown>[] = await trx('term_day as f')
      .join('term as t', 't.term_id', 'f.term_id')
      .join('keyword as k', 'k.keyword_id', 'f.keyword_id')
      .join('ad_group as g', 'g.ad_group_id', 'k.ad_group_id')
      .where({ 'f.report_file_id': 77 })
      .orderBy(['f.day', 'g.campaign_id', 'g.name', 'k.text_key', 'k.match', 't.key'])
      .select('f.day', 'g.name', 'k.text_key', 'k.match', 't.key', 't.kind')
      .select('f.impressions', 'f.clicks', 'f.cost_micros', 'f.conversions', 'f.value_micros');
    return { outcome, facts };
  } finally {
    await trx.rollback();
  }
}

test('rows that go straight into the facts and rows that take the way over a table come to the same', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 25 }), async (rows) => {
      const [straight, staged] = [await stored(rows), await stored(rows, 4)];
      expect(staged).toEqual(straight);
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
