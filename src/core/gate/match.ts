import type { MatchType } from './negative';

/**
 * The rule of 2.1 on words that are already apart, for words of any kind that compare by ===.
 * A negative without a word matches nothing (1.2).
 */
export function matchWords<Word>(
  match: MatchType,
  negative: readonly Word[],
  query: readonly Word[],
): boolean {
  if (negative.length === 0) return false;
  switch (match) {
    case 'broad':
      return negative.every((word) => query.includes(word));
    case 'phrase':
      return standsIn(negative, query);
    case 'exact':
      return negative.length === query.length && negative.every((word, i) => word === query[i]);
  }
}

/** Whether the words of `part` stand in `whole` next to each other in the same order. */
export function standsIn<Word>(part: readonly Word[], whole: readonly Word[]): boolean {
  for (let at = 0; at + part.length <= whole.length; at++) {
    if (part.every((word, i) => word === whole[at + i])) return true;
  }
  return false;
}

/**
 * The same rule on coded words that stand in a column, without making anything: `negative` against
 * `column[start .. end)`.
 */
export function matchSlice(
  match: MatchType,
  negative: readonly number[],
  column: Uint32Array,
  start: number,
  end: number,
): boolean {
  if (negative.length === 0) return false;
  switch (match) {
    case 'broad':
      for (const word of negative) if (!holds(word, column, start, end)) return false;
      return true;
    case 'phrase':
      for (let at = start; at + negative.length <= end; at++) if (sameAt(negative, column, at)) return true;
      return false;
    case 'exact':
      return negative.length === end - start && sameAt(negative, column, start);
  }
}

function sameAt(negative: readonly number[], column: Uint32Array, at: number): boolean {
  for (let i = 0; i < negative.length; i++) if (negative[i] !== column[at + i]) return false;
  return true;
}

function holds(word: number, column: Uint32Array, start: number, end: number): boolean {
  for (let i = start; i < end; i++) if (column[i] === word) return true;
  return false;
}
