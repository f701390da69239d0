import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readReport } from './read-report';
import type { ROLES_OF_KIND } from './reading';
import { FIGURE_ROLES, type FigureRole, type RowCategory } from './reading';

/**
 * Reports written by drawn habits (language, order of columns, separator, encoding, number and day style, lines above
 * and below, faults) are read as they were written.
 */

type Role = Exclude<(typeof ROLES_OF_KIND)['search terms'][number], 'currency'>;

const NAMES: Record<Role, string[]> = {
  'search term': [
    'Search term',
    'search query',
    'Suchbegriff',
    'Suchanfrage',
    'Terme de recherche',
    'Término de búsqueda',
    'Zoekterm',
  ],
  campaign: ['Campaign', 'Campaign name', 'Kampagne', 'Campagne', 'Campaña', 'CAMPAGNE'],
  'ad group': [
    'Ad group',
    'AdGroup',
    'Anzeigengruppe',
    'Groupe d’annonces',
    'Grupo de anuncios',
    'Advertentiegroep',
  ],
  keyword: ['Keyword', 'Mot clé', 'Palabra clave', 'Zoekwoord', 'Schlüsselwort', 'Targeting'],
  'match type': [
    'Match type',
    'Keyword match type',
    'Type de correspondance',
    'Tipo de concordancia',
    'Zoektype',
  ],
  day: ['Day', 'Date', 'Tag', 'Datum', 'Jour', 'Fecha', 'Dag'],
  impressions: ['Impressions', 'Impr.', 'Impressionen', 'Impresiones', 'Vertoningen', 'Affichages'],
  clicks: ['Clicks', 'Klicks', 'Clics', 'Klikken'],
  cost: ['Cost', 'Spend', 'Kosten', 'Coût', 'Coste', 'Uitgaven', 'Total cost'],
  conversions: ['Conversions', 'Conv.', 'Orders', 'Bestellungen', 'Commandes', 'Conversiones', 'Conversies'],
  value: ['Conv. value', 'Revenue', 'Umsatz', 'Bestellwert', 'Valeur de conv.', 'Ingresos', 'Omzet', 'Sales'],
};
const NOISE = [
  'CTR',
  'Avg. CPC',
  'Cost / conv.',
  'Conv. rate',
  'Campaign ID',
  'Klickrate',
  'Kosten pro Klick',
  'Impr. share',
  'Notes',
];

type NumberStyle = { decimal: '.' | ','; group: string };
const NUMBER_STYLES: NumberStyle[] = [
  { decimal: '.', group: '' },
  { decimal: '.', group: ',' },
  { decimal: '.', group: "'" },
  { decimal: ',', group: '' },
  { decimal: ',', group: '.' },
  { decimal: ',', group: '\u00a0' },
];
const written = ({ decimal, group }: NumberStyle, value: number, decimals: number) => {
  const [whole = '', rest] = value.toFixed(decimals).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, group);
  return rest === undefined ? grouped : `${grouped}${decimal}${rest}`;
};

const pad = (n: number) => String(n).padStart(2, '0');
const DAY_STYLES: ((d: number) => string)[] = [
  (d) => `2026-10-${pad(d)}`,
  (d) => `${pad(d)}.10.2026`,
  (d) => `${d}.10.26`,
  (d) => `${pad(d)}/10/2026`,
  (d) => `10/${pad(d)}/2026`,
  (d) => `10/${d}/26`,
  (d) => `Oct ${d}, 2026`,
  (d) => `${d} October 2026`,
  (d) => `${d}. Okt. 2026`,
  (d) => `202610${pad(d)}`,
  (d) => `2026-10-${pad(d)} 00:00:00`,
];
const MONEY_STYLES: ((text: string) => string)[] = [
  (t) => t,
  (t) => `€${t}`,
  (t) => `${t} €`,
  (t) => `EUR ${t}`,
  (t) => `${t} EUR`,
];
const ENCODINGS = {
  'utf-8': (text: string) => Buffer.from(text),
  'utf-8 with mark': (text: string) => Buffer.from(`\uFEFF${text}`),
  'utf-16le': (text: string) => Buffer.from(`\uFEFF${text}`, 'utf16le'),
  'utf-16be': (text: string) => Buffer.from(`\uFEFF${text}`, 'utf16le').swap16(),
  'windows-1252': (text: string) =>
    Buffer.from(text.replaceAll('€', '\u0080').replaceAll('’', '\u0092'), 'latin1'),
};

const FAULTS: { category: RowCategory; spoil: (cells: Record<Role, string>) => void }[] = [
  { category: 'no search term', spoil: (c) => (c['search term'] = '') },
  { category: 'no search term', spoil: (c) => (c['search term'] = '--') },
  { category: 'bad number', spoil: (c) => (c.clicks = '12a') },
  { category: 'bad number', spoil: (c) => (c.cost = 'many') },
  { category: 'bad number', spoil: (c) => (c.clicks = '1 %') },
  { category: 'negative figure', spoil: (c) => (c.cost = '-5') },
  { category: 'negative figure', spoil: (c) => (c.impressions = '(3)') },
  { category: 'bad day', spoil: (c) => (c.day = 'someday') },
  { category: 'bad day', spoil: (c) => (c.day = '') },
  { category: 'bad day', spoil: (c) => (c.day = '2026-02-30') },
  { category: 'too long', spoil: (c) => (c['search term'] = 'x'.repeat(450)) },
  { category: 'not text', spoil: (c) => (c['search term'] = 'a\u0001b') },
];

const row = fc.record({
  term: fc.constantFrom(
    'bee hive',
    'Königin kaufen',
    'total hive kit',
    'smoker "quiet"',
    'a, b; c | d',
    "men's suit",
    'día de miel',
    '???',
    '=1+1',
    'iphone 12',
  ),
  match: fc.constantFrom('broad', 'phrase', 'exact', '-'),
  day: fc.integer({ min: 1, max: 31 }),
  impressions: fc.option(fc.integer({ min: 0, max: 3_000_000 })),
  clicks: fc.option(fc.integer({ min: 0, max: 40_000 })),
  cost: fc.option(fc.integer({ min: 0, max: 9_000_000 })),
  conversions: fc.option(fc.integer({ min: 0, max: 5_000 })),
  value: fc.option(fc.integer({ min: 0, max: 90_000_000 })),
  fault: fc.option(fc.constantFrom(...FAULTS), { freq: 6 }),
});

const habits = fc.record({
  names: fc.record(
    Object.fromEntries(Object.entries(NAMES).map(([role, of]) => [role, fc.constantFrom(...of)])) as Record<
      Role,
      fc.Arbitrary<string>
    >,
  ),
  order: fc.shuffledSubarray(Object.keys(NAMES) as Role[], { minLength: 11 }),
  noise: fc.subarray(NOISE, { maxLength: 3 }),
  separator: fc.constantFrom(',', ';', '\t', '|'),
  encoding: fc.constantFrom(...(Object.keys(ENCODINGS) as (keyof typeof ENCODINGS)[])),
  lineEnd: fc.constantFrom('\n', '\r\n', '\r'),
  numbers: fc.constantFrom(...NUMBER_STYLES),
  days: fc.constantFrom(...DAY_STYLES),
  money: fc.constantFrom(...MONEY_STYLES),
  missing: fc.constantFrom('', '-', '--', 'n/a', ' '),
  above: fc.subarray([
    'Search terms report',
    'Account: Larkfell, all campaigns',
    'October 1, 2026 - October 31, 2026',
    '',
    'sep=;',
  ]),
  total: fc.option(fc.constantFrom('Total', 'Total: account', 'Gesamt', 'Summe', 'Totaal', 'TOTAL')),
  isUnitInHeader: fc.boolean(),
  isAllQuoted: fc.boolean(),
  rows: fc.array(row, { minLength: 3, maxLength: 25 }),
});

type Habits = typeof habits extends fc.Arbitrary<infer Drawn> ? Drawn : never;

function write(h: Habits) {
  const quoted = (cell: string) =>
    h.isAllQuoted || /["\n]/.test(cell) || cell.includes(h.separator)
      ? `"${cell.replaceAll('"', '""')}"`
      : cell;
  const line = (cells: string[]) => cells.map(quoted).join(h.separator);
  const rows = [
    { ...h.rows[0]!, day: 29, fault: null, cost: 123_45, conversions: 150, value: 99 },
    ...h.rows,
  ]; // decides order and mark
  const header = [
    ...h.order.map((role) =>
      h.isUnitInHeader && (role === 'cost' || role === 'value') ? `${h.names[role]} (EUR)` : h.names[role],
    ),
    ...h.noise,
  ];
  const lines = [...h.above, line(header)];
  const expected = {
    rejected: [] as [number, RowCategory][],
    rows: 0,
    sums: {} as Record<FigureRole, number | null>,
  };
  for (const role of FIGURE_ROLES) expected.sums[role] = null;
  for (const drawn of rows) {
    const figure = (value: number | null, decimals: number) =>
      value === null ? h.missing : written(h.numbers, value / 10 ** decimals, decimals);
    const money = (value: number | null) => (value === null ? h.missing : h.money(figure(value, 2)));
    const cells: Record<Role, string> = {
      'search term': drawn.term,
      campaign: 'Hives · Starter'.replace('·', '-'),
      'ad group': 'Group 1',
      keyword: 'bee hive',
      'match type': drawn.match,
      day: h.days(drawn.day),
      impressions: figure(drawn.impressions, 0),
      clicks: figure(drawn.clicks, 0),
      cost: money(drawn.cost),
      conversions: figure(drawn.conversions, 2),
      value: money(drawn.value),
    };
    drawn.fault?.spoil(cells);
    lines.push(line([...h.order.map((role) => cells[role]), ...h.noise.map(() => '1')]));
    if (drawn.fault) {
      expected.rejected.push([lines.length, drawn.fault.category]);
      continue;
    }
    expected.rows += 1;
    for (const role of FIGURE_ROLES) {
      const value = drawn[role];
      if (value !== null) expected.sums[role] = (expected.sums[role] ?? 0) + value;
    }
  }
  if (h.total !== null)
    lines.push(line([h.total, ...h.order.slice(1).map(() => ''), ...h.noise.map(() => '')]));
  return { bytes: ENCODINGS[h.encoding](lines.join(h.lineEnd)), expected };
}

test('reports of any habits are read as they were written', async () => {
  await fc.assert(
    fc.asyncProperty(habits, async (h) => {
      const { bytes, expected } = write(h);
      const reading = await readReport(Uint8Array.from(bytes));
      expect(reading.error).toBeNull();
      expect(reading.questions).toEqual([]);
      const refused = reading.rejected.filter((r) => r.category !== 'total row');
      expect(refused.map((r) => [r.line, r.category])).toEqual(expected.rejected);
      expect(reading.rejectedCount).toBe(expected.rejected.length);
      expect(reading.rows).toBe(expected.rows);
      const cents = (micros: number | null) => (micros === null ? null : micros / 10_000);
      const { sums } = reading;
      expect({
        ...{ impressions: sums.impressions, clicks: sums.clicks, cost: cents(sums.costMicros) },
        conversions: sums.conversions === null ? null : Math.round(sums.conversions * 100),
        value: cents(sums.valueMicros),
      }).toEqual(expected.sums);
    }),
    { numRuns: 1_000 },
  );
}, 120_000);
