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

/** By decimal mark: a figure written plainly, one with all that a figure may carry, and the mark that groups. */
const FORMS: Record<DecimalMark, { plain: RegExp; full: RegExp; group: RegExp }> = {
  '.': formsOf('\\.', ','),
  ',': formsOf(',', '\\.'),
};

function formsOf(decimal: string, group: string) {
  const grouped = `\\d{1,3}(?:${group}\\d{3})+|\\d{1,2}(?:${group}\\d{2})+${group}\\d{3}`;
  const figure = `((?:${grouped}|\\d+)(?:${decimal}\\d+)?|${decimal}\\d+)`;
  return {
    plain: new RegExp(`^\\d{1,9}(?:${decimal}\\d+)?$`),
    full: new RegExp(`^(-|\\()?\\+?${figure}(\\)|-)?$`),
    group: new RegExp(group, 'g'),
  };
}

/**
 * Reads a figure. Missing is null (unknown), and so is a bound such as “< 10”.
 * @example readNumber('1.234,50 €', ',') // { value: 1234.5 }
 */
export function readNumber(cell: string, mark: DecimalMark): ReadNumber {
  const forms = FORMS[mark];
  if (forms.plain.test(cell)) return { value: Number(cell.replace(',', '.')) };
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
