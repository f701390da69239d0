import { describe, expect, test } from 'vitest';
import { readReport } from './read-report';
import type { KeywordRow, ReadOptions } from './reading';

/** Reads a keyword report, and collects what would be stored of it. */
async function read(lines: readonly string[], options: ReadOptions = {}) {
  const rows: KeywordRow[] = [];
  const bytes = new TextEncoder().encode(lines.join('\n'));
  const reading = await readReport(bytes, { ...options, onKeywords: (some) => void rows.push(...some) });
  return { reading, rows, roles: reading.columns.map(({ role }) => role) };
}

const HEADER =
  'Day,Campaign,Ad group,Keyword,Match type,Max. CPC,Quality rating,Search impr. share,Impressions,Clicks,Cost,Conversions,Shop orders,Newsletter sign-ups,All conv.';
const row = (cells: string) => `2026-11-01,Hives,Starter,${cells}`;

describe('a keyword report', () => {
  test('is known by its columns; further kinds of conversion keep their headers', async () => {
    const { reading, rows, roles } = await read([
      HEADER,
      row('[bee hive],Exact,0.45,7,45.3 %,1200,40,18.20,2,1,5,8'),
      row('"hive kit",Phrase,,--,< 10 %,90,3,1.20,0,,0,'),
    ]);
    expect(reading).toMatchObject({ kind: 'keywords', error: null, questions: [], rejectedCount: 0 });
    expect(roles.slice(5, 8)).toEqual(['bid', 'quality', 'impression share']);
    expect(roles.slice(11)).toEqual([
      ...['conversions', 'other conversions', 'other conversions', 'other conversions'],
    ]);
    expect(rows).toEqual([
      {
        ...{ line: 2, campaign: 'Hives', adGroup: 'Starter', keyword: 'bee hive', match: 'exact' },
        ...{ day: '2026-11-01', bidMicros: 450_000, quality: 7, impressionShare: 0.453 },
        ...{ impressions: 1200, clicks: 40, costMicros: 18_200_000, conversions: 2, valueMicros: null },
        otherConversions: { 'Shop orders': 1, 'Newsletter sign-ups': 5, 'All conv.': 8 },
      },
      expect.objectContaining({
        ...{ keyword: 'hive kit', match: 'phrase', bidMicros: null, quality: null, impressionShare: null },
        otherConversions: { 'Newsletter sign-ups': 0 },
      }),
    ]);
    expect(reading.bounds).toEqual({ 'impression share': 1 });
    expect(reading.sums).toMatchObject({ clicks: 43, costMicros: 19_400_000, conversions: 2 });
    expect(reading.days).toEqual({ from: '2026-11-01', to: '2026-11-01' });
  });

  test('in German, with decimal commas and a share written as a fraction', async () => {
    const { reading, rows } = await read([
      'Tag;Kampagne;Anzeigengruppe;Keyword;Gebot;Impressionsanteil;Qualitätsfaktor;Klicks;Kosten;Conversions;Anrufe',
      '01.11.2026;Beuten;Starter;bienenkasten;0,45;0,62;8;4;1,80;0,5;2',
      '13.11.2026;Beuten;Starter;bienenkasten;0,45;1;8;4;1,80;0,5;1,5',
    ]);
    expect(reading).toMatchObject({ kind: 'keywords', rejectedCount: 0 });
    expect(rows.map((one) => [one.impressionShare, one.bidMicros, one.otherConversions])).toEqual([
      [0.62, 450_000, { Anrufe: 2 }],
      [1, 450_000, { Anrufe: 1.5 }],
    ]);
  });

  test('what can not be read is refused with its place and the remedy', async () => {
    const { reading, rows } = await read([
      HEADER,
      row('bee hive,Exact,0.45,7,45,1200,40,18.20,2,1,5,8'),
      row('bee hive,Exact,0.45,7,120 %,1200,40,18.20,2,1,5,8'),
      row(',Exact,0.45,7,,1200,40,18.20,2,1,5,8'),
      row('bee hive,Exact,0.45,7,,1200,40,18.20,2,1,some,8'),
      'Total,,,,,,,,2490,83,37.60,4,2,10,16',
    ]);
    expect(rows).toEqual([]);
    expect(reading.rejected.map(({ line, category, reason }) => [line, category, reason])).toEqual([
      [...[2, 'bad number'], 'impression share “45” is over the whole: where it is a percentage, write 45 %'],
      [3, 'bad number', 'impression share “120 %” is over the whole'],
      [4, 'no keyword', 'empty'],
      [5, 'bad number', 'other conversions “some”'],
      [6, 'total row', 'set aside: “Total”'],
    ]);
    expect(reading.rejectedCount).toBe(4);
  });

  test('without a column of days asks which days it is of', async () => {
    const lines = ['Campaign,Ad group,Keyword,Bid,Clicks,Cost', 'Hives,Starter,bee hive,0.45,40,18.20'];
    const { reading } = await read(lines);
    expect(reading.questions).toMatchObject([{ code: 'period' }]);
    const period = { from: '2026-10-01', to: '2026-10-31' };
    const { rows, reading: told } = await read(lines, { period });
    expect(told.days).toEqual(period);
    expect(rows).toMatchObject([{ day: '2026-10-31', keyword: 'bee hive', clicks: 40 }]);
  });

  test('a file in which an unnamed column may hold the search terms is not taken for one', async () => {
    const { reading } = await read([
      'Day,Campaign,Ad group,Keyword,What people typed,Clicks,Cost',
      '2026-11-01,Hives,Starter,bee hive,bee hive for sale,40,18.20',
    ]);
    expect(reading).toMatchObject({ kind: 'search terms', error: { category: 'no search term column' } });
    const asked = await read(
      ['Day,Campaign,Keyword,Note,Clicks,Cost', '2026-11-01,Hives,bee hive,none,40,18.20'],
      { kind: 'keywords' },
    );
    expect(asked.rows).toMatchObject([{ keyword: 'bee hive', clicks: 40 }]);
  });

  test('several columns can be said to be kinds of conversion, and one to be none', async () => {
    const { rows } = await read(
      ['Day,Keyword,Bid,Clicks,Conversions,Brochure,Visit', '2026-11-01,bee hive,0.45,40,1,2,3'],
      { roles: { 5: 'other conversions', 6: 'other conversions' } },
    );
    expect(rows[0]!.otherConversions).toEqual({ Brochure: 2, Visit: 3 });
  });

  test('a header that can not be kept as it is gives a name that can', async () => {
    const { rows } = await read(
      ['Day,Keyword,Bid,Clicks,Conversions,Le\u0000ads,__proto__', '2026-11-01,bee hive,0.45,40,1,2,3'],
      { roles: { 5: 'other conversions', 6: 'other conversions' } },
    );
    expect(Object.entries(rows[0]!.otherConversions)).toEqual([
      ['Le ads', 2],
      ['(__proto__)', 3],
    ]);
  });

  test('columns of one header are one kind', async () => {
    const { rows } = await read([
      'Day,Keyword,Bid,Clicks,Conversions,Leads,Leads',
      '2026-11-01,bee hive,0.45,40,1,2,3',
    ]);
    expect(rows[0]!.otherConversions).toEqual({ Leads: 5 });
  });
});
