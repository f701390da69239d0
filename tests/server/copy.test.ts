import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { copyRows, dayNumber, type CopyColumn } from '@/server/db/copy';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const row = fc.record({
  small: fc.option(fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 })),
  large: fc.option(fc.maxSafeInteger()),
  share: fc.option(fc.double({ noNaN: true })),
  day: fc.option(fc.constantFrom('1999-12-31', '2000-01-01', '2026-02-28', '2028-02-29')),
  // What is no text by itself (half a surrogate pair) and NUL, which no column holds, are refused when a report is read.
  text: fc.option(
    fc.string({ unit: 'grapheme', maxLength: 300 }).map((text) => text.replaceAll('\0', '\t\n\\N')),
  ),
});
type Row = typeof row extends fc.Arbitrary<infer R> ? R : never;

async function throughTable(trx: Knex.Transaction, rows: readonly Row[]): Promise<Row[]> {
  await trx.raw(`create temporary table copied (
    position integer, small integer, large bigint, share double precision, day date, text text)`);
  const columns: CopyColumn[] = [
    { name: 'position', type: 'integer', valueOf: (at) => at },
    { name: 'small', type: 'integer', valueOf: (at) => rows[at]!.small ?? NaN },
    { name: 'large', type: 'bigint', valueOf: (at) => rows[at]!.large ?? NaN },
    { name: 'text', type: 'text', valueOf: (at) => rows[at]!.text },
    { name: 'share', type: 'double', valueOf: (at) => rows[at]!.share ?? NaN },
    { name: 'day', type: 'date', valueOf: (at) => (rows[at]!.day === null ? NaN : dayNumber(rows[at]!.day)) },
  ];
  await copyRows(trx, 'copied', columns, rows.length);
  const found: Row[] = await trx('copied')
    .orderBy('position')
    .select('small', 'large', 'share', 'day', 'text');
  await trx.raw('drop table copied');
  return found;
}

test('what is copied into a table is read from it again', async () => {
  await world.db.transaction(async (trx) => {
    const property = fc.asyncProperty(fc.array(row, { maxLength: 20 }), async (rows) => {
      expect(await throughTable(trx, rows)).toEqual(rows);
    });
    await fc.assert(property, { numRuns: 100 });
  });
});

test('rows of many pieces, and texts longer than there is room for at first', async () => {
  const rows: Row[] = Array.from({ length: 20_000 }, (_, at) => ({
    ...{ small: at, large: at - 10_000, share: at / 3, day: null },
    text: at % 1_000 === 0 ? 'ü'.repeat(90_000) : `text ${at}`,
  }));
  await world.db.transaction(async (trx) => expect(await throughTable(trx, rows)).toEqual(rows));
});
