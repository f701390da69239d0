import { describe, expect, test } from 'vitest';
import { readReport } from './read-report';
import type { ReadOptions, ReportRow } from './reading';

/** Reads a file, and collects what would be stored of it. */
async function read(content: string | Uint8Array, options: ReadOptions = {}) {
  const rows: ReportRow[] = [];
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const reading = await readReport(bytes, { ...options, onRows: (some) => void rows.push(...some) });
  return { reading, rows };
}
const table = (...lines: string[]) => lines.join('\n');

describe('a column of currencies', () => {
  const mixed = (header: string) =>
    table(
      `Tag;Suchbegriff;Kampagne;Kosten;${header}`,
      '01.11.2026;bee hive;Hives;1,50;EUR',
      '01.11.2026;bee stand;Hives;2,50;CHF',
      '01.11.2026;bee kit;Hives;3,50;EUR',
      '01.11.2026;bee book;Hives;0,50;',
    );

  test.each(['Währung', 'Währungscode', 'Currency', 'Code devise', 'Valutacode'])(
    '“%s” is held against each row: one of another currency is refused',
    async (header) => {
      const { reading, rows } = await read(mixed(header));
      expect(reading).toMatchObject({ currency: 'EUR', rejectedCount: 1, error: null });
      expect(reading.rejected).toMatchObject([
        { line: 3, category: 'other currency', reason: 'in CHF, and the others are in EUR' },
      ]);
      expect(rows.map((row) => row.costMicros)).toEqual([1_500_000, 3_500_000, 500_000]);
    },
  );

  test('the currency of the account is the one that is kept', async () => {
    const { reading, rows } = await read(mixed('Währung'), { currency: 'CHF' });
    expect(reading.currency).toBe('CHF');
    expect(rows.map((row) => row.term)).toEqual(['bee stand', 'bee book']);
    expect((await read(mixed('Währung'), { currency: 'USD' })).reading.currency).toBe('EUR');
  });

  test('that nobody knows is asked about, and nothing is read until it is answered', async () => {
    const { reading, rows } = await read(mixed('Abrechnung'));
    expect(reading.questions).toMatchObject([
      { code: 'currency column', column: 'Abrechnung', index: 4, text: expect.stringContaining('EUR, CHF') },
    ]);
    expect(rows).toEqual([]);
    const yes = await read(mixed('Abrechnung'), { roles: { 4: 'currency' } });
    expect(yes.reading).toMatchObject({ questions: [], rejectedCount: 1, rows: 3 });
    const no = await read(mixed('Abrechnung'), { roles: { 4: null } });
    expect(no.reading).toMatchObject({ questions: [], rejectedCount: 0, rows: 4 });
  });

  test('words of three letters that are no codes are no question', async () => {
    const { reading } = await read(
      table('Day,Search term,Cost,Colour', '2026-11-01,bee hive,1.5,red', '2026-11-01,bee kit,1.5,EUR'),
    );
    expect(reading.questions).toEqual([]);
  });
});

describe('a file without a header', () => {
  const bare = table('2026-11-01;bee hive;3;1,50', '2026-11-02;bee kit;5;2,50', '2026-11-02;bee;x;2,50');

  test('shows its columns, and says that a person must name them', async () => {
    const { reading, rows } = await read(bare);
    expect(reading).toMatchObject({ headerLine: 0, separator: ';', error: { category: 'no header' } });
    expect(reading.questions).toEqual([]); // a column may hold the days
    expect(reading.columns.map(({ header, sample }) => `${header}: ${sample}`)).toEqual([
      'column 1: 2026-11-01',
      'column 2: bee hive',
      'column 3: 3',
      'column 4: 1,50',
    ]);
    expect(rows).toEqual([]);
  });

  test('is read once they are named, from its first line on', async () => {
    const { reading, rows } = await read(bare, { roles: { 1: 'search term', 2: 'clicks', 3: 'cost' } });
    expect(reading).toMatchObject({ error: null, rows: 2, rejectedCount: 1 });
    expect(rows.map(({ line, day, term, clicks }) => [line, day, term, clicks])).toEqual([
      [1, '2026-11-01', 'bee hive', 3],
      [2, '2026-11-02', 'bee kit', 5],
    ]);
  });

  test('a header that is none can be said to be none', async () => {
    const text = table('clicks,cost', 'bee hive,2', 'bee kit,3');
    const options = { headerLine: 0, roles: { 0: 'search term', 1: 'clicks' } } as const;
    const period = { from: '2026-11-01', to: '2026-11-02' };
    const { reading, rows } = await read(text, { ...options, period });
    expect(reading.rejected).toMatchObject([{ line: 1, category: 'bad number' }]);
    expect(rows.map((row) => row.term)).toEqual(['bee hive', 'bee kit']);
  });

  test('the rows of a sheet can do without one as well', async () => {
    const sheet = [
      ['2026-11-01', 'bee hive', 3],
      ['2026-11-02', 'bee kit', 5],
    ];
    const rows: ReportRow[] = [];
    const reading = await readReport(sheet as never, {
      ...{ roles: { 0: 'day', 1: 'search term', 2: 'clicks' } },
      onRows: (some) => void rows.push(...some),
    });
    expect(reading).toMatchObject({ error: null, headerLine: 0 });
    expect(rows.map((row) => row.clicks)).toEqual([3, 5]);
  });

  test('prose is no table', async () => {
    const { reading } = await read('Dear all\n\nthe report is late\n');
    expect(reading).toMatchObject({ headerLine: null, error: { category: 'no header' } });
  });
});

describe('one bad byte', () => {
  const small = (...bytes: number[]) =>
    Buffer.concat([
      Buffer.from('Tag;Suchbegriff;Klicks\n2026-11-01;bienenkörbe;3\n2026-11-01;kaputt'),
      Buffer.from(bytes),
      Buffer.from(';4\n'),
    ]);

  test('in a small file is asked about, and refuses its row only', async () => {
    const { reading } = await read(small(0xff));
    expect(reading.questions).toMatchObject([
      { code: 'encoding', text: expect.stringContaining('bienenkörbe') },
    ]);
    const { reading: asUtf8, rows } = await read(small(0xff), { encoding: 'utf-8' });
    expect(rows.map((row) => row.term)).toEqual(['bienenkörbe']);
    expect(asUtf8.rejected).toMatchObject([{ line: 3, category: 'not text' }]);
    const other = await read(small(0xff), { encoding: 'windows-1252' });
    expect(other.rows.map((row) => row.term)).toEqual(['bienenkÃ¶rbe', 'kaputtÿ']);
  });

  test('is no question where the file is clearly of one encoding', async () => {
    expect((await read(small())).reading.questions).toEqual([]);
    const latin = Buffer.from('Tag;Suchbegriff;Klicks\n2026-11-01;bienenkörbe;3\n', 'latin1');
    expect((await read(latin)).rows.map((row) => row.term)).toEqual(['bienenkörbe']);
  });
});

describe('keyword ideas that tell ranges', () => {
  test('keep both ends, and show the middle', async () => {
    const ideas: unknown[] = [];
    const reading = await readReport(
      new TextEncoder().encode(
        table('Keyword;Monatl. Suchanfragen', 'bee hive;1 Tsd. – 10 Tsd.', 'bee kit;10 – 100', 'bee;many'),
      ),
      { onIdeas: (some) => void ideas.push(...some) },
    );
    expect(reading).toMatchObject({ kind: 'keyword ideas', rows: 2, rejectedCount: 1 });
    expect(ideas).toMatchObject([
      { text: 'bee hive', volume: 5500, volumeFrom: 1000, volumeTo: 10_000 },
      { text: 'bee kit', volume: 55, volumeFrom: 10, volumeTo: 100 },
    ]);
  });
});
