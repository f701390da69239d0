import { describe, expect, test } from 'vitest';
import { readReport } from './read-report';
import type { ReadOptions } from './reading';
import { read } from './testing';

/** Figures and days as people really write them; the reports are ours, mixed of many habits. */

describe('figures', () => {
  const cost = async (cells: string[], options?: ReadOptions) =>
    read(
      `Search term;Day;Cost\n${cells.map((c, i) => `t${i};2026-10-01;"${c.replaceAll('"', '""')}"`).join('\n')}\n`,
      options,
    );

  test.each([
    [['€ 1.234,50', '2,00 €'], 1236.5],
    [['EUR 1,234.50', '2.00'], 1236.5],
    [["CHF 1'234.50", '2.00'], 1236.5],
    [['1 234,50', '2,5'], 1237],
    [['12,34,567.50', '1.5'], 1_234_569],
    [['12,–', '1,50'], 13.5],
    [['$1,234.50', 'US$ 2.00'], 1236.5],
    [['1.234.567,8', '-', 'n/a', '< 10', ''], 1_234_567.8],
    [['="1.50"', '2.25'], 3.75],
    [['1 234,5 zł', '2 zł'], 1236.5],
  ])('%j', async (cells, sum) => {
    const reading = await cost(cells);
    expect(reading.rejected).toEqual([]);
    expect(reading.sums.costMicros! / 1e6).toBe(sum);
  });

  test.each([
    [['1.5', '(2.50)'], 'negative figure'],
    [['1.5', '2.50-'], 'negative figure'],
    [['1.5', '−2.50'], 'negative figure'],
    [['1.5', '1.2E+05'], 'bad number'],
    [['1.5', '#REF!'], 'bad number'],
    [['1.5', '12 %'], 'bad number'],
    [['1.5', '12 abc'], 'bad number'],
    [['€1.50', '£2.50', '€3.00'], 'bad number'],
  ])('%j holds a %s', async (cells, category) => {
    const reading = await cost(cells);
    expect(reading.rejected.map((r) => r.category)).toEqual([category]);
    expect(reading.rejected[0]!.line).toBe(3);
  });

  test('a column that uses both marks says so, and refuses what could be either', async () => {
    const reading = await cost(['1,50', '2,50', '3,50', '1,234', '4.50']);
    expect(reading.sums.costMicros).toBe(7_500_000);
    expect(reading.rejected.map((r) => [r.line, r.category])).toEqual([
      [5, 'bad number'],
      [6, 'bad number'],
    ]);
    expect(reading.columns[2]!.because).toContain('not in all cells');
  });

  test('as many cells of one mark as of the other is a question', async () => {
    expect((await cost(['1,50', '2.50'])).questions).toMatchObject([{ code: 'decimal mark' }]);
  });

  test('bounds count as unknown, and are counted', async () => {
    const reading = await cost(['< 10', '<5', '1.50']);
    expect(reading).toMatchObject({ rows: 3, bounds: { cost: 2 }, sums: { costMicros: 1_500_000 } });
  });

  test.each([
    ['Cost (EUR)', '1.50', 'EUR'],
    ['Cost', '1.50 GBP', 'GBP'],
    ['Kosten [€]', '1,50', 'EUR'],
    ['Cost', '$1.50', '$'],
    ['Cost', '1.50', null],
  ])('%s with %s is in %s', async (header, cell, currency) => {
    const reading = await read(`Search term;Day;${header}\nhive;2026-10-01;"${cell}"\n`);
    expect(reading.currency).toBe(currency);
  });

  test('a column of currencies makes a mark precise', async () => {
    const reading = await read('Search term;Day;Cost;Currency\nhive;2026-10-01;$1.50;CAD\n');
    expect(reading.currency).toBe('CAD');
  });
});

describe('days', () => {
  test.each([
    ['Sa., 31.10.2026'],
    ['31. Oktober 2026'],
    ['samedi 31 octobre 2026'],
    ['31 de octubre de 2026'],
    ['Oct 31, 2026'],
    ['October 31st, 2026'],
    ['2026-10-31T00:00:00Z'],
    ['31.10.2026 00:00'],
    ['2026/10/31'],
    ['20261031'],
    ['31-okt-26'],
    ['46326'],
    ['2026-10-31 12.30'],
  ])('%s', async (cell) => {
    expect((await read(`Search term\tDay\tClicks\nhive\t${cell}\t1\n`)).all[0]?.day).toBe('2026-10-31');
  });

  test('what only a late row decides is decided, and never asked', async () => {
    const early = Array.from({ length: 5_000 }, (_, i) => `t${i},0${1 + (i % 9)}/10/2026,1`);
    const reading = await read(['Search term,Day,Clicks', ...early, 'late,13/10/2026,1'].join('\n'));
    expect(reading).toMatchObject({
      rows: 5_001,
      questions: [],
      days: { from: '2026-10-01', to: '2026-10-13' },
    });
    expect(reading.all).toHaveLength(5_001);
  });

  test('a stream that can not be opened again is asked about instead', async () => {
    async function* stream() {
      yield new TextEncoder().encode('Search term,Day,Clicks\n');
      for (let i = 0; i < 20_000; i++) yield new TextEncoder().encode(`term ${i},01/10/2026,1\n`);
      yield new TextEncoder().encode('late,13/10/2026,1\n');
    }
    expect((await readReport(stream())).questions).toMatchObject([{ code: 'day order' }]);
  });

  test('days of both orders are a question, unless one side is very rare', async () => {
    const file = (first: number, second: number) =>
      [
        'Search term,Day,Clicks',
        ...Array.from({ length: first }, (_, i) => `a${i},2${i % 9}/10/2026,1`),
        ...Array.from({ length: second }, (_, i) => `b${i},10/2${i % 9}/2026,1`),
        'c,03/04/2026,1',
      ].join('\n');
    expect((await read(file(5, 4))).questions).toMatchObject([{ code: 'day order' }]);
    const clear = await read(file(30, 1));
    expect(clear).toMatchObject({ questions: [], rows: 31, rejectedCount: 1 });
    expect(clear.rejected[0]).toMatchObject({ category: 'bad day', reason: 'day “10/20/2026”' });
  });
});

test('what is no text costs a row where it would be kept, and not where it only tells a match type', async () => {
  const { all, rejected } = await read(
    'Search term,Campaign,Match type,Day,Clicks\n' +
      'oak hive,Hives,exact\u0001,2026-10-01,1\n' +
      'oak stand,Hi\u0001ves,exact,2026-10-01,1\n' +
      'oak stand,Hi\u0001ves,exact,2026-10-01,1\n',
  );
  expect(all).toMatchObject([{ term: 'oak hive', match: 'exact' }]);
  expect(rejected.map((row) => [row.line, row.category])).toEqual([
    [3, 'not text'],
    [4, 'not text'],
  ]);
});

test('more names than are remembered are read as the first ones are', async () => {
  const names = Array.from({ length: 12_000 }, (_, i) => `[keyword ${i % 6_000}]`);
  const rows = names.map((name, i) => `term ${i},Hives,${name},2026-10-01,1`);
  const { all } = await read(`Search term,Campaign,Keyword,Day,Clicks\n${rows.join('\n')}\n`);
  const told = all.map((row) => 'keyword' in row && `[${row.keyword}] ${row.match}`);
  expect(told).toEqual(names.map((name) => `${name} exact`));
});
