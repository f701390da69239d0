import { describe, expect, test } from 'vitest';
import { readReport } from './read-report';
import { read } from './testing';

/** Files as people really have them; each is ours, mixed of many habits. */

describe('headers', () => {
  test.each([
    ['Kundensuchbegriff;Kampagnenname;Anzeigengruppenname;Datum', 'search term|campaign|ad group|day'],
    ['Requête;Groupe d’annonces;Mot-clé;Type de correspondance', 'search term|ad group|keyword|match type'],
    ['Término;Tipo de concordancia;Fecha;Gasto (€)', 'search term|match type|day|cost'],
    ['Zoekopdracht;Overeenkomsttype;Vertoningen;Uitgaven', 'search term|match type|impressions|cost'],
    ['Suchanfrage;Bestellwert;Bestellungen;Werbekosten', 'search term|value|conversions|cost'],
    ['Query;Sales within 7 days;Orders within 7 days;Ad spend', 'search term|value|conversions|cost'],
    ['Term;Conv.;Conv. value;Value / conv.;Conv. rate', 'search term|conversions|value||'],
    ['Suchbegriff;Klickrate;Kosten pro Klick;Kosten/Conv.;Klicks', 'search term||||clicks'],
    ['Search term;Campaign ID;Campaign status;Campaign', 'search term|||campaign'],
    ['Search term;Advertising cost of sales (ACoS);Cost', 'search term||cost'],
    ['SEARCH_TERM;AD_GROUP;CLICKS_TOTAL;COST', 'search term|ad group|clicks|cost'],
    ['"Search\nterm";"Cost [EUR]";Clicks', 'search term|cost|clicks'],
  ])('%s', async (header, roles) => {
    const { columns } = await read(`${header}\n`);
    expect(columns.map((c) => c.role ?? '').join('|')).toBe(roles);
  });

  test('of two columns of one name the one whose cells fit has the role', async () => {
    const { columns } = await read(
      'Search term,Clicks note,Clicks seen,Day\nhive,none so far,7,2026-10-01\n',
    );
    expect(columns.map((c) => c.role)).toEqual(['search term', null, 'clicks', 'day']);
  });

  test('a column of days is found without a name that is known', async () => {
    const reading = await read('Search term,Clicks,When\na,1,2026-10-01\nb,1,2026-10-02\nc,1,2026-10-03\n');
    expect(reading.roles[2]).toBe('day');
    expect(reading.columns[2]!.because).toContain('holds days');
  });

  test('a line with more names further down is the header, and the header again is set aside', async () => {
    const reading = await read(
      'Search terms report\nCampaign: all campaigns\nsep=;\n\nSearch term;Day;Clicks\nhive;2026-10-01;2\nSearch term;Day;Clicks\nbee;2026-10-02;3\n',
    );
    expect(reading).toMatchObject({ headerLine: 5, rows: 2, rejectedCount: 0, sums: { clicks: 5 } });
  });
});

describe('sheets', () => {
  test('numbers and days keep what they are, short rows are filled up, blank ones counted', async () => {
    const reading = await read([
      ['Larkfell, October'],
      [],
      ['Search term', 'Day', 'Clicks', 'Cost', 'Keyword'],
      ['hive', new Date('2026-10-31T00:00:00Z'), 3, 1.234, 'bee hive'],
      [],
      ['smoker', '30.10.2026', 1204, 2],
      ['Total', null, 1207, 3.234],
    ]);
    expect(reading).toMatchObject({ headerLine: 3, rows: 2, questions: [], rejectedCount: 0 });
    expect(reading.sums).toMatchObject({ clicks: 1207, costMicros: 3_234_000 });
    expect(reading.all.map((r) => [r.line, r.day])).toEqual([
      [4, '2026-10-31'],
      [6, '2026-10-30'],
    ]);
    expect(reading.rejected).toMatchObject([{ line: 7, category: 'total row' }]);
  });
});

describe('bytes', () => {
  const latin = (text: string) => Uint8Array.from(Buffer.from(text, 'latin1'));

  test('an umlaut far down still tells Windows-1252', async () => {
    const rows = Array.from({ length: 20_000 }, (_, i) => `plain hive ${i},2026-10-01,1`);
    const reading = await read(latin(['Search term,Day,Clicks', ...rows, 'Königin,2026-10-01,1'].join('\n')));
    expect(reading).toMatchObject({ encoding: 'windows-1252', rows: 20_001, rejectedCount: 0 });
    expect(reading.all.at(-1)!.term).toBe('Königin');
  });

  test('line ends of an old kind, and mixed ones, count lines alike', async () => {
    const reading = await read('Search term,Day,Clicks\rhive,2026-10-01,1\r\nbad,x,1\nbee,2026-10-02,2\r');
    expect(reading).toMatchObject({ rows: 2, sums: { clicks: 3 } });
    expect(reading.rejected).toMatchObject([{ line: 3, category: 'bad day' }]);
  });

  test('a cell of many megabytes is passed over, and the rows around it are read', async () => {
    const long = 'x'.repeat(5_000_000);
    const reading = await read(
      `Search term,Day,Clicks\na,2026-10-01,1\n${long},2026-10-01,1\nb,2026-10-02,2\n`,
    );
    expect(reading).toMatchObject({ rows: 2, sums: { clicks: 3 } });
    expect(reading.rejected).toMatchObject([{ line: 3, category: 'too long' }]);
    expect(reading.rejected[0]!.raw.length).toBe(500);
  });

  test('a header of a million columns is no table', async () => {
    const header = `Search term,Clicks,${'c,'.repeat(1_000_000)}`;
    expect((await read(`${header}\nhive,1\n`)).error?.category).toBe('not a table');
  });

  test.each([['utf-16le'], ['windows-1252']])('a person can say that it is %s', async (encoding) => {
    const text = 'Search term,Day,Clicks\nhive,2026-10-01,1\n';
    const bytes = encoding === 'utf-16le' ? Uint8Array.from(Buffer.from(text, 'utf16le')) : latin(text);
    expect(await read(bytes, { encoding })).toMatchObject({ encoding, rows: 1 });
  });

  test('a person can say which line is the header, and what separates', async () => {
    const text = 'Search term|Clicks\nWhat|How;many\nhive|2;3\n';
    const reading = await read(text, { headerLine: 2, separator: ';' });
    expect(reading).toMatchObject({ headerLine: 2, separator: ';' });
    expect(reading.columns.map((c) => c.header)).toEqual(['What|How', 'many']);
  });
});

describe('more habits', () => {
  test.each([
    ['Broad match', 'broad'],
    ['weitgehend passend', 'broad'],
    ['passende Wortgruppe', 'phrase'],
    ['genau passend', 'exact'],
    ['Requête large', 'broad'],
    ['Concordancia de frase', 'phrase'],
    ['automatic', 'automatic'],
  ])('the match type %s is %s', async (cell, match) => {
    const { all } = await read(`Search term;Day;Keyword;Match type\nx;2026-10-01;bee;${cell}\n`);
    expect(all[0]!.match).toBe(match);
  });

  test('blank rows of separators are passed over, and a separator at the end of the header names no column', async () => {
    const reading = await read('Search term;Day;Clicks;\nhive;2026-10-01;2\n;;;\n ; ; \nbee;2026-10-02;3;\n');
    expect(reading).toMatchObject({ rows: 2, rejected: [], sums: { clicks: 5 } });
  });

  test('money in cents or micro-units is what it is', async () => {
    const micros = await read('Search term,Day,Cost (micros),Value in cents\nx,2026-10-01,1250000,305\n');
    expect(micros.sums).toMatchObject({ costMicros: 1_250_000, valueMicros: 3_050_000 });
    expect(micros.columns[2]!.because).toContain('in micro-units');
  });

  test('UTF-8 with a broken byte stays UTF-8, and only the broken row is refused', async () => {
    const text =
      'Search term,Day,Clicks\nKönigin für Bienen,2026-10-01,1\nbro#ken,2026-10-02,2\nGröße,2026-10-03,3\n';
    const bytes = Buffer.from(text);
    bytes[bytes.indexOf('#')] = 0xe4;
    const reading = await read(Uint8Array.from(bytes));
    expect(reading).toMatchObject({
      encoding: 'utf-8',
      rows: 2,
      rejected: [{ line: 3, category: 'not text' }],
    });
    expect(reading.all[0]!.term).toBe('Königin für Bienen');
  });

  test('days with points can be of the other order', async () => {
    expect((await read('Search term;Day\na;10.31.2026\nb;10.05.2026\n')).days).toEqual({
      from: '2026-10-05',
      to: '2026-10-31',
    });
  });

  test.each([
    ['<html><body><table><tr><td>Search term</td><td>Clicks</td></tr></table>'],
    ['[{"search term": "hive", "clicks": 1}]'],
    ['{"rows": [1]}'],
    ['<?xml version="1.0"?><report/>'],
  ])('%s is no table', async (text) => {
    expect((await read(text)).error?.category).toBe('not a table');
  });

  test.each([
    ['Account total;;;17'],
    [';;Totals for October;17'],
    ['Eindtotaal;--;;17'],
    ['Subtotal: Hives;;;17'],
    ['Summe gesamt;1.10.–31.10.;;17'],
    ['Total;17'],
  ])('%s is a total, and set aside', async (total) => {
    const reading = await read(`Search term;Day;Campaign;Clicks\nhive;2026-10-01;Hives;17\n${total}\n`);
    expect(reading).toMatchObject({
      rows: 1,
      rejectedCount: 0,
      rejected: [{ line: 3, category: 'total row' }],
    });
  });

  test.each([['total'], ['summe der bienen'], ['Gesamt']])(
    'the search term %s on a day is no total',
    async (term) => {
      const reading = await read(`Search term;Day;Clicks\n${term};2026-10-01;17\n`);
      expect(reading).toMatchObject({ rows: 1, rejected: [] });
    },
  );

  test('a list of search terms without figures is read', async () => {
    expect(await read('Search term\nbee hive\nsmoker\n')).toMatchObject({ rows: 2, error: null });
  });
});

describe('kinds', () => {
  test('keyword ideas', async () => {
    const ideas: unknown[] = [];
    const reading = await readReport(
      new TextEncoder().encode(
        'Keyword;Search volume;Competition;Low bid (EUR);High bid (EUR)\nbee hive;1.300;0,4;0,35;1,20\n-;5;low;;\n',
      ),
      { onIdeas: (rows) => void ideas.push(...rows) },
    );
    expect(reading).toMatchObject({ kind: 'keyword ideas', rows: 1, currency: 'EUR', rejectedCount: 1 });
    expect(ideas).toEqual([
      {
        ...{ line: 2, text: 'bee hive', volume: 1300, competition: '0,4' },
        ...{ volumeFrom: 1300, volumeTo: 1300, lowBidMicros: 350_000, highBidMicros: 1_200_000 },
      },
    ]);
  });

  test('the structure of an account', async () => {
    const elements: unknown[] = [];
    const reading = await readReport(
      new TextEncoder().encode(
        [
          'Campaign,Ad group,Keyword,Match type,List,Status',
          'Hives,,,,,live',
          'Hives,Starter,,,,paused',
          'Hives,Starter,[bee hive],,,live',
          'Hives,,free,negative phrase,,live',
          ',,film,broad,Films,live',
          'Hives,,,,Films,',
          ',Starter,,,,',
        ].join('\n'),
      ),
      { onElements: (rows) => void elements.push(...rows) },
    );
    expect(reading).toMatchObject({ kind: 'structure', rows: 6 });
    expect(elements).toMatchObject([
      { element: 'campaign', campaign: 'Hives', status: 'live' },
      { element: 'ad group', adGroup: 'Starter', status: 'paused' },
      { element: 'keyword', text: 'bee hive', match: 'exact' },
      { element: 'negative', campaign: 'Hives', text: 'free', match: 'phrase' },
      { element: 'negative', list: 'Films', text: 'film', match: 'broad' },
      { element: 'list', list: 'Films', campaign: 'Hives' },
    ]);
    expect(reading.rejected).toMatchObject([{ line: 8, reason: 'a ad group needs its campaign' }]);
  });
});
