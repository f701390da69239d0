import type { Figures } from '../figures';
import type { CellRow } from './delimited';
import { readDay } from './days';
import type { Understanding } from './columns';
import { isMissing, readNumber } from './numbers';
import type { FigureRole, RejectedRow, ReportMatch, ReportRow, RowCategory } from './reading';

/** Terms are kept up to this many code points. */
const LONGEST_TERM = 400;
const LONGEST_RAW = 500;
const NOT_TEXT = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFD]/;
const TOTAL =
  /^(grand |sub ?)?(totals?|gesamt(summe|ergebnis)?|summe|sommes?|suma|totaal|totales)( ?[:(–-].*)?$/i;

type Outcome = { row: ReportRow } | { rejected: RejectedRow };

/** Reads one row of cells, or says why it can not be. */
export function readRow(source: CellRow, how: Understanding, dayOfFile: string | undefined): Outcome {
  const { cells, line } = source;
  const cell = (role: keyof Understanding['at']) =>
    how.at[role] === undefined ? '' : (cells[how.at[role]] ?? '').trim();
  const reject = (category: RowCategory, reason: string): Outcome => ({
    rejected: { line, category, reason, raw: source.raw.slice(0, LONGEST_RAW).replaceAll('\u0000', '␀') },
  });

  if (isTotal(cells))
    return reject('total row', `set aside: “${cells.find((c) => c.trim() !== '')?.trim() ?? ''}”`);
  const expected = how.columns.length;
  if (cells.length < expected) return reject('too few cells', `${cells.length} of ${expected}`);
  if (cells.slice(expected).some((extra) => extra.trim() !== '')) {
    return reject('too many cells', `${cells.length} of ${expected}`);
  }

  const term = cell('search term');
  const texts = [term, cell('campaign'), cell('ad group'), cell('keyword')];
  if (isMissing(term)) return reject('no search term', 'empty');
  if (texts.some((text) => NOT_TEXT.test(text))) return reject('not text', 'holds bytes that are no text');
  const tooLong = texts.find((text) => text.length > LONGEST_TERM && [...text].length > LONGEST_TERM);
  if (tooLong !== undefined)
    return reject('too long', `${[...tooLong].length} characters, ${LONGEST_TERM} are kept`);

  const day = how.at.day === undefined ? dayOfFile : dayOf(cell('day'), how);
  if (day === undefined) return reject('bad day', `day “${cell('day').slice(0, 40)}”`);

  const figures = readFigures(cell, how);
  if ('fault' in figures) return reject(figures.fault, figures.reason);
  return {
    row: {
      line,
      term,
      campaign: cell('campaign'),
      adGroup: cell('ad group'),
      ...readKeyword(cell, how),
      day,
      ...figures,
    },
  };
}

const MOST_KNOWN_DAYS = 5_000;

function dayOf(cell: string, { knownDays, dayOrder }: Understanding): string | undefined {
  if (knownDays.has(cell)) return knownDays.get(cell);
  const day = readDay(cell, dayOrder);
  if (knownDays.size < MOST_KNOWN_DAYS) knownDays.set(cell, day);
  return day;
}

function readFigures(
  cell: (role: FigureRole) => string,
  how: Understanding,
): Figures | { fault: 'bad number' | 'negative figure'; reason: string } {
  const read: Record<FigureRole, number | null> = {
    impressions: null,
    clicks: null,
    cost: null,
    conversions: null,
    value: null,
  };
  for (const role of Object.keys(read) as FigureRole[]) {
    const text = cell(role);
    const number = readNumber(text, how.decimalMark[role] ?? '.');
    const whole = role === 'impressions' || role === 'clicks';
    if ('fault' in number) return { fault: number.fault, reason: `${role} “${text.slice(0, 40)}”` };
    if (whole && number.value !== null && !Number.isInteger(number.value)) {
      return { fault: 'bad number', reason: `${role} “${text}” is not whole` };
    }
    read[role] = number.value;
  }
  const micros = (value: number | null) => (value === null ? null : Math.round(value * 1e6));
  const { impressions, clicks, conversions } = read;
  return { impressions, clicks, costMicros: micros(read.cost), conversions, valueMicros: micros(read.value) };
}

const MATCH_WORDS: readonly { match: ReportMatch; pattern: RegExp }[] = [
  { match: 'exact', pattern: /exact|genau|exacte|exacta/ },
  { match: 'phrase', pattern: /phrase|wortgruppe|passend|expression|frase|woordgroep|zinsdeel/ },
  { match: 'broad', pattern: /broad|weitgehend|large|amplia|breed/ },
  { match: 'automatic', pattern: /auto|dynami/ },
];

/** The keyword and its match type; the marks [exact] and "phrase" around a keyword tell its type where no cell does. */
function readKeyword(
  cell: (role: 'keyword' | 'match type') => string,
  { at }: Understanding,
): Pick<ReportRow, 'keyword' | 'match'> {
  const text = cell('keyword');
  const said =
    MATCH_WORDS.find(({ pattern }) => pattern.test(cell('match type').toLowerCase()))?.match ?? null;
  const marked = /^\[.+\]$/.test(text) ? 'exact' : /^".+"$/.test(text) ? 'phrase' : null;
  const keyword = isMissing(text) ? null : text.replace(/^[["]|[\]"]$/g, '');
  const isAutomatic = keyword === null && at.keyword !== undefined; // a report without the column says nothing of it
  return { keyword, match: isAutomatic ? 'automatic' : (said ?? marked) };
}

/** A quick look at a cell's first letter: all words for a total begin with g, s or t. */
function mayBeTotal(cell: string): boolean {
  const first = cell.charCodeAt(0) | 32;
  return (
    first === 103 || first === 115 || first === 116 || cell.charCodeAt(0) <= 32 || cell.charCodeAt(0) > 127
  );
}

/** A row of totals names itself in one cell and holds no other text. */
function isTotal(cells: readonly string[]): boolean {
  if (!cells.some(mayBeTotal)) return false;
  const named = cells.filter((cell) => TOTAL.test(cell.trim()));
  if (named.length !== 1) return false;
  const texts = cells.filter((cell) => /\p{L}/u.test(cell.replace(/\b[A-Z]{3}\b/g, '')) && !isMissing(cell));
  return texts.length === 1;
}
