import type { DayOrder, Period } from '../reading';

/** Month names by their first letters, accents aside: English, German, French, Spanish, Dutch. */
const MONTHS = [
  /^(jan|ene)/,
  /^(feb|fev)/,
  /^(mar|mrz|maa|mrt|mae)/,
  /^(apr|avr|abr)/,
  /^(may|mai|mei)/,
  /^(jun|juin)/,
  /^(jul|juil)/,
  /^(aug|aou|ago)/,
  /^(sep|set)/,
  /^(oct|okt)/,
  /^nov/,
  /^(dec|dez|dic)/,
];

/**
 * Which order a day written in figures shows: the one it must be, 'either', or undefined where order plays no part.
 * @example dayOrderEvidence('13/10/2026') // 'day first'
 */
export function dayOrderEvidence(cell: string): DayOrder | 'either' | undefined {
  const parts = inFigures(cell);
  if (!parts) return undefined;
  if (parts.first > 12) return parts.second > 12 ? undefined : 'day first';
  if (parts.mark === '.') return parts.second > 12 ? 'month first' : undefined; // with points the day is first by habit
  return parts.second > 12 ? 'month first' : parts.first === parts.second ? undefined : 'either';
}

/**
 * Reads a day, a time of day behind it and a day of the week before it set aside. A number of five figures is the day
 * of a spreadsheet.
 * @returns YYYY-MM-DD, or undefined when it is no day of the calendar (1990–2100)
 * @example readDay('31.10.2026', 'day first') // '2026-10-31'
 */
export function readDay(cell: string, order: DayOrder): string | undefined {
  const text = bareDay(cell);
  const iso = /^(\d{4})(?:([-/.])(\d{1,2})\2(\d{1,2})|(\d{2})(\d{2}))$/.exec(text);
  if (iso) return calendarDay(Number(iso[1]), Number(iso[3] ?? iso[5]), Number(iso[4] ?? iso[6]));
  const figures = inFigures(text);
  if (figures) {
    const [day, month] =
      order === 'day first' ? [figures.first, figures.second] : [figures.second, figures.first];
    return calendarDay(figures.year, month, day);
  }
  if (/^\d{5}$/.test(text)) return dayOfSpreadsheet(Number(text));
  const named =
    /^(?:(\d{1,2})(?:\.|st|nd|rd|th|er|º)?[ -](\p{L}+)\.?,?[ -](\d{4}|\d{2})|(\p{L}+)\.? (\d{1,2})(?:st|nd|rd|th)?,? (\d{4}))$/u.exec(
      text,
    );
  if (!named) return undefined;
  const month = monthNamed(named[2] ?? named[4] ?? '');
  return calendarDay(fullYear(Number(named[3] ?? named[6])), month, Number(named[1] ?? named[5]));
}

/** The days that a line names as a span, where both can only be read one way. @example spanOfDays('1 Oct 2026 – 31 Oct 2026') // { from: '2026-10-01', to: '2026-10-31' } */
export function spanOfDays(line: string): Period | null {
  for (const between of [/ [-–—] | (?:to|until|bis|au|hasta|al?|tot|t\/m) /i, /[–—]/]) {
    const [before = '', after = '', ...more] = line.split(between);
    if (more.length > 0) continue;
    const from = sureDay(/[\p{L}\d][\p{L}\d ./,-]{5,}$/u.exec(before.trim())?.[0] ?? '');
    const to = sureDay(/^[\p{L}\d][\p{L}\d ./,-]{5,}/u.exec(after.trim())?.[0] ?? '');
    if (from && to && from <= to) return { from, to };
  }
  return null;
}

/** A day at the end or the start of a text, if any reading of it is sure. */
function sureDay(text: string): string | undefined {
  const words = text.split(' ');
  for (let count = 1; count <= Math.min(4, words.length); count++) {
    for (const part of [words.slice(-count).join(' '), words.slice(0, count).join(' ')]) {
      const bare = part.replace(/[.,;:]+$/, '');
      const [day, other] = [readDay(bare, 'day first'), readDay(bare, 'month first')];
      if (dayOrderEvidence(bare) !== 'either' && (day ?? other)) return day ?? other;
    }
  }
  return undefined;
}

function inFigures(cell: string): { first: number; second: number; year: number; mark: string } | undefined {
  const found = /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2})$/.exec(bareDay(cell));
  if (!found) return undefined;
  return {
    first: Number(found[1]),
    second: Number(found[3]),
    year: fullYear(Number(found[4])),
    mark: found[2]!,
  };
}

const TIME =
  /(?<=\d)(?:T|,? )\d{1,2}[:.]\d{2}([:.]\d{2})?([.,]\d+)?( ?[AP]M)?( ?(?:Z|UTC|GMT)|[+-]\d{2}:?\d{2})?$/i;

/** Without time, day of the week, the little words of Spanish and French, and spaces behind points. */
function bareDay(cell: string): string {
  if (cell.length <= 10 && /^\d[\d./-]*$/.test(cell)) return cell; // most cells
  return cell
    .trim()
    .replace(TIME, '')
    .replace(/^(?:le |el )/i, '')
    .replace(/^\p{L}{2,10}\.?,? +(?=\d{1,2}(?:[./-]|\.? +\p{L})|\p{L}+\.? \d)/u, '')
    .replace(/ de(?:l)? /gi, ' ')
    .replace(/(?<=\d)\. (?=\d)/g, '.')
    .replace(/ {2,}/g, ' ');
}

/** Days since 30 December 1899, as spreadsheets count. */
function dayOfSpreadsheet(days: number): string | undefined {
  const date = new Date(Date.UTC(1899, 11, 30 + days));
  return calendarDay(date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate());
}

function fullYear(year: number): number {
  return year < 100 ? 2000 + year : year;
}

function monthNamed(name: string): number {
  const plain = name.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
  return MONTHS.findIndex((pattern) => pattern.test(plain)) + 1;
}

function calendarDay(year: number, month: number, day: number): string | undefined {
  if (year < 1990 || year > 2100) return undefined;
  const date = new Date(Date.UTC(year, month - 1, day));
  if (date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return undefined;
  return date.toISOString().slice(0, 10);
}
