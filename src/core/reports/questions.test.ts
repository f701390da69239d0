import { describe, expect, test } from 'vitest';
import { read } from './testing';

describe('questions are asked, not guessed', () => {
  test('day first or month first', async () => {
    const report = 'Search term,Day,Clicks\nhive,03/04/2026,1\n';
    const asked = await read(report);
    expect(asked).toMatchObject({
      rows: 0,
      error: { category: 'undecided' },
      questions: [{ code: 'day order' }],
    });
    expect((await read(report, { dayOrder: 'day first' })).all[0]!.day).toBe('2026-04-03');
    expect((await read(report, { dayOrder: 'month first' })).all[0]!.day).toBe('2026-03-04');
  });

  test('one day that can only be read one way decides', async () => {
    expect((await read('Search term,Day,Clicks\na,03/04/2026,1\nb,03/14/2026,1\n')).days).toEqual({
      from: '2026-03-04',
      to: '2026-03-14',
    });
  });

  test('decimal comma or thousands', async () => {
    const report = 'Search term;Day;Cost\nhive;2026-10-01;1,234\n';
    expect(await read(report)).toMatchObject({ questions: [{ code: 'decimal mark' }], rows: 0 });
    expect((await read(report, { decimalMark: ',' })).sums.costMicros).toBe(1_234_000);
    expect((await read(report, { decimalMark: '.' })).sums.costMicros).toBe(1_234_000_000);
  });

  test('whole numbers decide for the file: clicks are never 1.204', async () => {
    const reading = await read('Search term;Day;Clicks;Cost\nhive;2026-10-01;1.204;2.500\n');
    expect(reading.sums).toMatchObject({ clicks: 1204, costMicros: 2_500_000_000 });
  });

  test('a file without days is read, and asks for its period before a row goes out', async () => {
    const report = 'Terms of 1 Oct 2026 - 31 Oct 2026\nSearch term,Clicks\nhive,1\n';
    const asked = await read(report);
    expect(asked).toMatchObject({
      ...{ rows: 1, days: null, sums: { clicks: 1 }, error: null, all: [] },
      questions: [{ code: 'period', suggested: { from: '2026-10-01', to: '2026-10-31' } }],
    });
    const period = { from: '2026-10-01', to: '2026-10-31' };
    const told = await read(report, { period });
    expect(told).toMatchObject({ days: period, questions: [], all: [{ day: '2026-10-31' }] });
  });

  test('a person can say what a column is', async () => {
    const report = 'What they typed,Day,Clicks,Extra\nhive,2026-10-01,1,9\n';
    expect((await read(report)).error).toMatchObject({ category: 'no search term column' });
    const reading = await read(report, { roles: { 0: 'search term', 3: 'impressions' } });
    expect(reading).toMatchObject({ rows: 1, sums: { clicks: 1, impressions: 9 }, error: null });
  });
});

describe('rows that can not be read', () => {
  const report = [
    'Search term,Day,Clicks,Cost',
    'good,2026-10-01,1,0.50',
    'short,2026-10-01',
    'long,2026-10-01,1,0.5,x',
    ',2026-10-01,1,0.5',
    'word,2026-10-01,12a,0.5',
    'half,2026-10-01,1.5,0.5',
    'feb,2026-02-30,1,0.5',
    'minus,2026-10-01,1,-0.5',
    `${'x'.repeat(5000)},2026-10-01,1,0.5`,
    'nul\u0000byte,2026-10-01,1,0.5',
    '=cmd(),2026-10-01,1,0.5',
    '<script>alert(1)</script>,2026-10-01,1,0.5',
    '"say ""honey""",2026-10-01,1,0.5',
    '???,2026-10-01,-,< 10',
    'total hive kit,2026-10-01,1,0.5',
  ].join('\n');

  test('are kept with line and reason; the others load', async () => {
    const reading = await read(report);
    expect(reading.rejected.map((r) => [r.line, r.category])).toEqual([
      [3, 'too few cells'],
      [4, 'too many cells'],
      [5, 'no search term'],
      [6, 'bad number'],
      [7, 'bad number'],
      [8, 'bad day'],
      [9, 'negative figure'],
      [10, 'too long'],
      [11, 'not text'],
    ]);
    expect(reading.rejected[3]).toMatchObject({ reason: 'clicks “12a”', raw: 'word,2026-10-01,12a,0.5' });
    expect(reading.all.map((r) => r.term)).toEqual([
      'good',
      '=cmd()',
      '<script>alert(1)</script>',
      'say "honey"',
      '???',
      'total hive kit',
    ]);
    expect(reading.all[4]).toMatchObject({ clicks: null, costMicros: null });
    expect(JSON.stringify(reading.rejected)).not.toContain('\\u0000');
  });

  test('a quote that is never closed, or closed lines later, swallows no row', async () => {
    const rows = Array.from({ length: 50 }, (_, i) => `term ${i},2026-10-01,1,1`);
    rows[3] = '"12 inch frame,2026-10-01,1,1';
    rows[20] = 'tool",2026-10-01,1,1';
    rows[40] = '5" smoker,2026-10-01,1,1';
    rows[45] = '"open,2026-10-01,1,1';
    const reading = await read(`Search term,Day,Clicks,Cost\n${rows.join('\n')}`);
    expect(reading).toMatchObject({ rows: 50, rejectedCount: 0, sums: { clicks: 50 } });
    expect(reading.all[3]!.term).toBe('"12 inch frame');
    expect(reading.all[49]!.line).toBe(51);
  });

  test('a quoted cell may hold line breaks, and lines are still counted', async () => {
    const reading = await read('Search term,Day,Clicks\n"two\nlines",2026-10-01,1\nbad,x,1\n');
    expect(reading.all[0]!.term).toBe('two\nlines');
    expect(reading.rejected[0]).toMatchObject({ line: 4, category: 'bad day' });
  });
});

describe('keywords and match types', () => {
  test.each([
    ['bee hive', 'Broad match', 'bee hive', 'broad'],
    ['[bee hive]', '', 'bee hive', 'exact'],
    ['"""bee hive"""', '', 'bee hive', 'phrase'],
    ['bee hive', 'genau passend', 'bee hive', 'exact'],
    ['', '', null, 'automatic'],
    ['-', 'auto', null, 'automatic'],
    ['bee hive', '', 'bee hive', null],
  ])('%s / %s', async (keyword, match, readKeyword, readMatch) => {
    const reading = await read(`Search term,Day,Keyword,Match type\nx,2026-10-01,${keyword},${match}\n`);
    expect(reading.all[0]).toMatchObject({ keyword: readKeyword, match: readMatch });
  });
});

test('a report without a keyword column says nothing of targeting', async () => {
  expect((await read('Search term,Day\nx,2026-10-01\n')).all[0]).toMatchObject({
    keyword: null,
    match: null,
  });
});
