import { describe, expect, test } from 'vitest';
import { readReport } from './read-report';
import { read } from './testing';

const bytes = (text: string) => new TextEncoder().encode(text);

const PLAIN = `Search term,Campaign,Ad group,Keyword,Match type,Day,Impressions,Clicks,Cost,Conversions,Value
bee hive kit,Hives,Starter,bee hive,broad,2026-10-01,100,10,12.50,1,89.00
hive movie,Hives,Starter,bee hive,phrase,2026-10-02,50,5,6.25,0,0
`;

describe('a plain report', () => {
  test('is read whole, with sums and days', async () => {
    const reading = await read(PLAIN);
    expect(reading).toMatchObject({
      kind: 'search terms',
      encoding: 'utf-8',
      separator: ',',
      headerLine: 1,
      rows: 2,
      days: { from: '2026-10-01', to: '2026-10-02' },
      sums: { impressions: 150, clicks: 15, costMicros: 18_750_000, conversions: 1, valueMicros: 89_000_000 },
      rejected: [],
      questions: [],
      error: null,
    });
    expect(reading.all[0]).toEqual({
      line: 2,
      term: 'bee hive kit',
      campaign: 'Hives',
      adGroup: 'Starter',
      keyword: 'bee hive',
      match: 'broad',
      day: '2026-10-01',
      impressions: 100,
      clicks: 10,
      costMicros: 12_500_000,
      conversions: 1,
      valueMicros: 89_000_000,
    });
  });

  test('reads the same in chunks of every size', async () => {
    const whole = await read(PLAIN.replaceAll('\n', '\r\n'));
    for (const size of [1, 2, 3, 7, 50]) {
      async function* chunks() {
        const all = bytes(PLAIN.replaceAll('\n', '\r\n'));
        for (let at = 0; at < all.length; at += size) yield all.subarray(at, at + size);
      }
      expect(await readReport(chunks())).toEqual({ ...whole, all: undefined, roles: undefined });
    }
  });

  test('reads rows that come apart already', async () => {
    const rows = PLAIN.trim()
      .split('\n')
      .map((line) => line.split(','));
    const reading = await readReport(rows);
    expect(reading).toMatchObject({ rows: 2, encoding: null, separator: null, sums: { clicks: 15 } });
  });

  test('can be aborted', async () => {
    const reason = new Error('cancelled');
    await expect(readReport(bytes(PLAIN), { signal: AbortSignal.abort(reason) })).rejects.toBe(reason);
  });
});

describe('layout', () => {
  test.each([
    [';', 'semicolons'],
    ['\t', 'tabs'],
    ['|', 'pipes'],
  ])('%j separates cells (%s)', async (separator) => {
    const reading = await read(PLAIN.replaceAll(',', separator));
    expect(reading).toMatchObject({ separator, rows: 2, sums: { clicks: 15 } });
  });

  test('lines above the header and a total below are set aside, columns stand in any order', async () => {
    const reading = await read(
      'Search terms of Larkfell\nOctober, all campaigns\n\nClicks;Day;Cost (EUR);CTR %;Search term\n' +
        '4;31.10.2026;1.234,50;1,41 %;hive oak\n2;01.10.2026;0,70;2 %;"bees; and honey"\nTotal;;1.235,20;;\n',
    );
    expect(reading).toMatchObject({
      headerLine: 4,
      rows: 2,
      rejectedCount: 0,
      sums: { costMicros: 1_235_200_000, clicks: 6 },
    });
    expect(reading.all.map((row) => [row.term, row.day, row.line])).toEqual([
      ['hive oak', '2026-10-31', 5],
      ['bees; and honey', '2026-10-01', 6],
    ]);
    expect(reading.rejected).toEqual([expect.objectContaining({ line: 7, category: 'total row' })]);
    expect(reading.columns[3]).toMatchObject({ role: null, because: 'a ratio, is recomputed' });
  });

  test.each([
    ['Suchbegriff;Kampagne;Anzeigengruppe;Tag;Klicks;Kosten;Bestellungen;Wert', 'de'],
    ['Terme de recherche;Campagne;Groupe;Jour;Clics;Coût;Commandes;Valeur', 'fr'],
    ['Término de búsqueda;Campaña;Grupo;Día;Clics;Coste;Conversiones;Ingresos', 'es'],
    ['Zoekterm;Campagne;Advertentiegroep;Dag;Klikken;Kosten;Bestellingen;Omzet', 'nl'],
  ])('%s', async (header) => {
    const reading = await read(`${header}\nimker;A;B;31.10.2026;3;4,50;1;20,00\n`);
    expect(reading.columns.map((c) => c.role)).toEqual([
      'search term',
      'campaign',
      'ad group',
      'day',
      'clicks',
      'cost',
      'conversions',
      'value',
    ]);
    expect(reading.sums).toMatchObject({
      clicks: 3,
      costMicros: 4_500_000,
      conversions: 1,
      valueMicros: 20_000_000,
    });
  });

  test('ratios, identifiers and second columns of one name are left out, and say why', async () => {
    const reading = await read(
      'Search term,Campaign ID,Campaign,Cost / conv.,Conv. rate,Avg. CPC,All conversions,Conversions,Conv. value,Cost,Match type,Day\nx,1,A,1,1,1,1,2,3,4,broad,2026-10-01\n',
    );
    expect(reading.columns.filter((c) => c.role).map((c) => [c.header, c.role])).toEqual([
      ['Search term', 'search term'],
      ['Campaign', 'campaign'],
      ['Conversions', 'conversions'],
      ['Conv. value', 'value'],
      ['Cost', 'cost'],
      ['Match type', 'match type'],
      ['Day', 'day'],
    ]);
  });
});

describe('encodings', () => {
  const text = PLAIN.replace('bee hive kit', 'Königin für Bienen');
  test.each<[string, Uint8Array]>([
    ['utf-8', bytes(`\uFEFF${text}`)],
    ['utf-16le', Uint8Array.from(Buffer.from(`\uFEFF${text}`, 'utf16le'))],
    ['utf-16le', Uint8Array.from(Buffer.from(text, 'utf16le'))],
    ['utf-16be', Uint8Array.from(Buffer.from(`\uFEFF${text}`, 'utf16le').swap16())],
    ['windows-1252', Uint8Array.from(Buffer.from(text, 'latin1'))],
  ])('%s', async (encoding, source) => {
    const reading = await read(source);
    expect(reading.encoding).toBe(encoding);
    expect(reading.all[0]!.term).toBe('Königin für Bienen');
    expect(reading.columns[0]!.header).toBe('Search term');
  });
});

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

describe('files that are no report', () => {
  test.each<[string, Uint8Array, string]>([
    ['nothing', new Uint8Array(), 'empty'],
    ['blank lines', bytes('\n  \n'), 'empty'],
    ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]), 'not a table'],
    ['a workbook', Uint8Array.from([0x50, 0x4b, 3, 4, 20, 0]), 'not a table'],
    ['other bytes', Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 251), 'not a table'],
    ['prose', bytes('Dear all,\nplease find below nothing at all, really.\n'), 'no header'],
    ['no terms', bytes('Campaign,Day,Clicks\nHives,2026-10-01,1\n'), 'no search term column'],
  ])('%s: %s', async (_, source, category) => {
    const reading = await read(source);
    expect(reading.error?.category).toBe(category);
    expect(reading.rows).toBe(0);
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
