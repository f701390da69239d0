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
