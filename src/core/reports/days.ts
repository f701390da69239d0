import type { DayOrder } from './reading';

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

/** Which order a day written in figures shows: the one it must be, 'either', or undefined where order plays no part. */
export function dayOrderEvidence(cell: string): DayOrder | 'either' | undefined {
  const parts = inFigures(cell);
  if (!parts || parts.mark === '.') return parts ? 'day first' : undefined;
  if (parts.first > 12) return 'day first';
  return parts.second > 12 ? 'month first' : parts.first === parts.second ? undefined : 'either';
}

/**
 * Reads a day, a time of day behind it set aside.
 * @returns YYYY-MM-DD, or undefined when it is no day of the calendar (1990–2100)
 * @example readDay('31.10.2026', 'day first') // '2026-10-31'
 */
export function readDay(cell: string, order: DayOrder): string | undefined {
  const text = withoutTime(cell);
  const iso = /^(\d{4})([-/.]?)(\d{2})\2(\d{2})$/.exec(text);
  if (iso) return calendarDay(Number(iso[1]), Number(iso[3]), Number(iso[4]));
  const figures = inFigures(text);
  if (figures) {
    const [day, month] =
      order === 'day first' ? [figures.first, figures.second] : [figures.second, figures.first];
    return calendarDay(figures.year, month, day);
  }
  const named =
    /^(?:\p{L}+,? )?(?:(\d{1,2})\.?[ -](\p{L}+)\.?,?[ -](\d{2,4})|(\p{L}+)\.? (\d{1,2}),? (\d{4}))$/u.exec(
      text,
    );
  if (!named) return undefined;
  const month = monthNamed(named[2] ?? named[4] ?? '');
  return calendarDay(fullYear(Number(named[3] ?? named[6])), month, Number(named[1] ?? named[5]));
}

function inFigures(cell: string): { first: number; second: number; year: number; mark: string } | undefined {
  const found = /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2})$/.exec(withoutTime(cell));
  if (!found) return undefined;
  return {
    first: Number(found[1]),
    second: Number(found[3]),
    year: fullYear(Number(found[4])),
    mark: found[2]!,
  };
}

function withoutTime(cell: string): string {
  return cell
    .trim()
    .replace(/(?:T|,? )\d{1,2}:\d{2}(:\d{2})?(\.\d+)?( ?[AP]M)?( ?Z|[+-]\d{2}:?\d{2})?$/i, '');
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
