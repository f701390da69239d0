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
 * The same rule on coded words in columns, without making anything: the negative's words are
 * `column[start .. end)`, the query's `query[from .. to)`.
 */
export function matchSlice(
  match: MatchType,
  column: ArrayLike<number>,
  start: number,
  end: number,
  query: ArrayLike<number>,
  from = 0,
  to = query.length,
): boolean {
  const length = end - start;
  if (length === 0) return false;
  switch (match) {
    case 'broad':
      for (let i = start; i < end; i++) if (!holds(column[i]!, query, from, to)) return false;
      return true;
    case 'phrase':
      for (let at = from; at + length <= to; at++) if (sameAt(column, start, length, query, at)) return true;
      return false;
    case 'exact':
      return length === to - from && sameAt(column, start, length, query, from);
  }
}

function sameAt(
  column: ArrayLike<number>,
  start: number,
  length: number,
  query: ArrayLike<number>,
  at: number,
): boolean {
  for (let i = 0; i < length; i++) if (column[start + i] !== query[at + i]) return false;
  return true;
}

/** Whether a word is among query[from .. to). */
export function holds(word: number, query: ArrayLike<number>, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (query[i] === word) return true;
  return false;
}
