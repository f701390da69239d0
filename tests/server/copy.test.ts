import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { copyRows, dayNumber, type CopyColumn } from '@/server/db/copy';
import { copyOut } from '@/server/db/copy-out';
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

/** The same rows by the way out. What is read so is never null, but for figures. */
async function copiedOut(trx: Knex.Transaction) {
  const out: { position: number; large: number; share: number; text: string; day: number }[] = [];
  const query = trx('copied')
    .orderBy('position')
    .select(
      'position',
      'share',
      trx.raw(`coalesce(text, '')`),
      trx.raw('coalesce(day, ?::date)', ['2000-01-01']),
      'large',
    );
  await copyOut(trx, query, (cells) => {
    const written = Buffer.alloc(cells.lengthOf(2) + 3);
    cells.copyTo(written, 3, 2);
    const text = written.toString('utf8', 3);
    expect(Buffer.from(cells.bytes(2)).toString('utf8')).toBe(text);
    out.push({
      ...{ position: cells.integer(0), share: cells.double(1), text, day: cells.integer(3) },
      large: cells.bigint(4),
    });
  });
  return out;
}

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
  expect(await copiedOut(trx)).toEqual(
    rows.map(({ large, share, text, day }, position) => ({
      ...{ position, large: large ?? NaN, share: share ?? NaN, text: text ?? '' },
      day: day === null ? 0 : dayNumber(day),
    })),
  );
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

test('a reading that is taken back, or a taker that fails, leaves the transaction in order', async () => {
  await world.db
    .transaction(async (trx) => {
      const numbers = trx.raw('select n::integer from generate_series(1, 200000) n');
      const asked = new AbortController();
      const reading = copyOut(trx, numbers, () => asked.abort(new Error('taken back')), asked.signal);
      await expect(reading).rejects.toThrow('taken back');
      const failing = copyOut(trx, numbers, (row) => {
        if (row.integer(0) === 1_000) throw new Error('no more');
      });
      await expect(failing).rejects.toThrow('no more');
      await expect(copyOut(trx, trx.raw('select 1/0'), () => undefined)).rejects.toThrow('division by zero');
    })
    .catch((error: unknown) => expect(String(error)).toContain('aborted'));
  expect(await world.db('person').first()).toBeDefined();
});

test('a connection that breaks in the middle is told', async () => {
  const broken = world.db.transaction(async (trx) => {
    const { rows } = await trx.raw<{ rows: { pid: number }[] }>('select pg_backend_pid() as pid');
    const numbers = trx.raw('select n::integer from generate_series(1, 3000000) n');
    let killed: Promise<unknown> | undefined;
    const rowsOf = copyOut(trx, numbers, () => {
      killed ??= world.db.raw('select pg_terminate_backend(?)', [rows[0]!.pid]).then((answer) => answer);
    });
    await expect(rowsOf).rejects.toThrow();
    await killed;
  });
  await expect(broken).rejects.toThrow();
  expect(await world.db('person').first()).toBeDefined();
}, 20_000);
