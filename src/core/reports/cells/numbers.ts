import { CURRENCY_MARKS, currencyIn } from './currency';
import type { DecimalMark } from '../reading';

const MISSING = new Set(['', '-', '--', '–', '—', 'n/a']);
const LONGEST_MISSING = 3;
const SPACE = 32;
const SPACES = /[\s\u00A0\u202F\u2009'’]/g;

/** Whether a cell says that there is no value. */
export function isMissing(cell: string): boolean {
  if (cell.length > LONGEST_MISSING && cell.charCodeAt(0) > SPACE) return false; // most cells
  return MISSING.has(cell.trim().toLowerCase());
}

/** A number's own characters: currency marks and codes, spaces and apostrophes that group thousands taken away. */
function bareNumber(cell: string): string {
  const text = /[^\d.,\s-]/.test(cell)
    ? cell.replace(CURRENCY_MARKS, (mark) => (currencyIn(mark) === undefined ? mark : ''))
    : cell;
  return text
    .replace(SPACES, '')
    .replace(/[−–]/g, '-')
    .replace(/[.,]-+$/, ''); // 12,– is twelve
}

/**
 * What a cell shows about the decimal mark: the mark that it must be; 'either' where both readings make sense (1,234);
 * undefined where it shows nothing.
 */
export function decimalEvidence(cell: string): DecimalMark | 'either' | undefined {
  const digits = bareNumber(cell).replace(/^[-+(]+|\)$/g, '');
  const marks = [...digits].filter((c) => c === ',' || c === '.');
  if (marks.length === 0 || !/^[\d.,]+$/.test(digits)) return undefined;
  const last = marks.at(-1) as DecimalMark;
  const other = last === ',' ? '.' : ',';
  if (marks.some((mark) => mark !== last))
    return marks.filter((mark) => mark === last).length === 1 ? last : undefined;
  if (marks.length > 1) return other; // grouped twice or more: 1.234.567
  const [whole = '', rest = ''] = digits.split(last);
  return rest.length === 3 && /^[1-9]\d{0,2}$/.test(whole) ? 'either' : last;
}

export type ReadNumber =
  { value: number | null; isBound?: boolean } | { fault: 'bad number' | 'negative figure' };

const [DIGIT_ZERO, MOST_PLAIN] = [48, 15];

/**
 * A figure written in digits with at most one decimal mark among them, as nearly all are: millions of cells go this way.
 * @returns −1 for every other cell
 * @example readPlain('12.5', '.') // 12.5
 */
export function readPlain(cell: string, mark: DecimalMark): number {
  if (cell.length > MOST_PLAIN) return -1; // below this, digits and their power of ten are exact, and so is the quotient
  let digits = cell.length === 0 ? -1 : 0;
  let scale = 0; // 0 before the mark
  for (let i = 0; i < cell.length; i++) {
    const digit = cell.charCodeAt(i) - DIGIT_ZERO;
    if (digit >= 0 && digit <= 9) {
      digits = 10 * digits + digit;
      scale *= 10;
    } else if (scale === 0 && i > 0 && i < cell.length - 1 && cell[i] === mark) scale = 1;
    else return -1;
  }
  return scale === 0 ? digits : digits / scale;
}

/** By decimal mark: a figure with all that it may carry, and the mark that groups. */
const FORMS: Record<DecimalMark, { full: RegExp; group: RegExp }> = {
  '.': formsOf('\\.', ','),
  ',': formsOf(',', '\\.'),
};

function formsOf(decimal: string, group: string) {
  const grouped = `\\d{1,3}(?:${group}\\d{3})+|\\d{1,2}(?:${group}\\d{2})+${group}\\d{3}`;
  const figure = `((?:${grouped}|\\d+)(?:${decimal}\\d+)?|${decimal}\\d+)`;
  return {
    full: new RegExp(`^(-|\\()?\\+?${figure}(\\)|-)?$`),
    group: new RegExp(group, 'g'),
  };
}

/**
 * Reads a figure. Missing is null (unknown), and so is a bound such as “< 10”.
 * @example readNumber('1.234,50 €', ',') // { value: 1234.5 }
 */
export function readNumber(cell: string, mark: DecimalMark): ReadNumber {
  const plain = readPlain(cell, mark);
  if (plain >= 0) return { value: plain };
  const forms = FORMS[mark];
  if (isMissing(cell)) return { value: null };
  if (/^\s*[<>≤≥]\s*[\d.,]+\s*$/.test(cell)) return { value: null, isBound: true };
  const figure = forms.full.exec(bareNumber(cell));
  if (!figure) return { fault: 'bad number' };
  const value = Number(figure[2]!.replace(forms.group, '').replace(',', '.'));
  if (!Number.isFinite(value) || value > Number.MAX_SAFE_INTEGER / 1e6) return { fault: 'bad number' };
  const isNegative = figure[1] !== undefined || figure[3] === '-';
  return isNegative && value !== 0 ? { fault: 'negative figure' } : { value };
}

/**
 * Whether a cell can be read as a figure one way or the other.
 * @example mayBeNumber('12,5') // true
 */
export function mayBeNumber(cell: string): boolean {
  const readable = (mark: DecimalMark) => {
    const read = readNumber(cell, mark);
    return 'fault' in read ? read.fault === 'negative figure' : read.value !== null || read.isBound === true;
  };
  return readable('.') || readable(',');
}
