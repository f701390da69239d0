import type { DecimalMark } from '../reading';
import { isMissing, readNumber } from './numbers';

/** Searches a month: what a source tells, or the middle of the range that it tells, with both ends. */
export type Volume = { middle: number; from: number; to: number };

/** What stands behind a figure for thousands and millions, in the languages that headers are known in. */
const UNITS: readonly { times: number; words: RegExp }[] = [
  { times: 1e3, words: /^(k|tsd|tausend|mil|mille|dzd|duizend|thousand)\.?$/ },
  { times: 1e6, words: /^(m|mio|mill|million|millions|millionen|millones|miljoen|mln)\.?$/ },
];

const RANGE = /^(.*?\S)\s*(?:–|—|−|-|\bto\b|\bbis\b|\bà\b|\ba\b|\btot\b|\bhasta\b)\s*(\S.*)$/;

/**
 * Reads a volume: a figure, a figure in thousands or millions (“1 Tsd.”), or a range of such (“1K – 10K”).
 * @returns null where it is missing or only a bound; undefined where it is none
 * @example readVolume('1K – 10K', '.') // { middle: 5500, from: 1000, to: 10000 }
 */
export function readVolume(cell: string, mark: DecimalMark): Volume | null | undefined {
  const text = cell.trim();
  if (isMissing(text)) return null;
  const whole = readOne(text, mark);
  if (whole !== undefined) return whole === null ? null : { middle: whole, from: whole, to: whole };
  const [, first, second] = RANGE.exec(text) ?? [];
  if (first === undefined || second === undefined) return undefined;
  const from = readOne(first, mark);
  const to = readOne(second, mark);
  if (from == null || to == null || from > to) return undefined;
  return { middle: Math.round((from + to) / 2), from, to };
}

/** @returns null for a bound (“< 10”) */
function readOne(text: string, mark: DecimalMark): number | null | undefined {
  const [, figure, unit] = /^(.*?\d)\s*([\p{L}.]*)\+?$/u.exec(text.trim()) ?? [];
  if (figure === undefined) return undefined;
  const known = UNITS.find(({ words }) => words.test(unit!.toLowerCase()));
  if (unit !== '' && !known) return undefined;
  const read = readNumber(figure, mark);
  if ('fault' in read) return undefined;
  if (read.value === null) return null;
  const value = read.value * (known?.times ?? 1);
  return Number.isInteger(Math.round(value * 1e6) / 1e6) ? Math.round(value) : undefined;
}
