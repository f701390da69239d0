import { grown } from '../columns';
import { createDictionary } from '../text';
import { matchSlice } from './match';
import type { MatchType, NegativeText } from './negative';

/**
 * Negatives filed so that a query looks only at those that share their rarest word with it. Each is known by its
 * index: how many were filed before it.
 */
export type NegativeIndex = {
  /** Files one more, under what is its rarest word so far. @returns its index */
  add(negative: NegativeText): number;
  /** Takes one out; its index is not given again. */
  remove(index: number): void;
  /** Whether a negative holds no word: it keeps its index and matches nothing (rules 1.2). */
  isWordless(index: number): boolean;
  /**
   * Indexes of the negatives that match a query (rules 2.1), each once, ascending.
   * @param most to look for; the first one is enough to know that a query is stopped
   */
  matching(query: string, most?: number): number[];
};

/**
 * @param negatives filed at once: all their words are counted before the first is filed
 * @example createNegativeIndex([{ text: 'free', match: 'broad' }]).matching('free hive') // [0]
 */
export function createNegativeIndex(negatives: readonly NegativeText[]): NegativeIndex {
  const dictionary = createDictionary();
  /** Negative n says words[starts[n] .. starts[n + 1]), with match type matches[n]. */
  const matches: MatchType[] = [];
  const starts: number[] = [0];
  let column = new Uint32Array(64);
  /** Word w was said by uses[w] negatives; the bucket of w is first[w], next[first[w]] …, each one more than the index, 0 at the end. */
  const uses: number[] = [];
  const first: number[] = [];
  const next: number[] = [];
  /** The query in which word w was seen last. */
  let seen = new Uint32Array(64);
  let turn = 0;
  /** The query's words that are known, each once. */
  const distinct: number[] = [];
  let found = new Uint32Array(64);

  function enter({ text, match }: NegativeText): number {
    const count = dictionary.internAll(text);
    const start = starts.at(-1)!;
    if (start + count > column.length) column = grown(column, 2 * (start + count));
    const ids = dictionary.coded.subarray(0, count);
    column.set(ids, start);
    starts.push(start + count);
    while (uses.length < dictionary.size) {
      uses.push(0);
      first.push(0);
    }
    if (seen.length < dictionary.size) seen = grown(seen, 2 * dictionary.size);
    for (const id of new Set(ids)) uses[id]! += 1;
    next.push(0);
    return matches.push(match) - 1;
  }

  function rarestOf(index: number): number {
    let rarest = -1;
    for (let i = starts[index]!; i < starts[index + 1]!; i++)
      if (rarest < 0 || uses[column[i]!]! < uses[rarest]!) rarest = column[i]!;
    return rarest;
  }

  function file(index: number) {
    const rarest = rarestOf(index);
    if (rarest < 0) return;
    next[index] = first[rarest]!;
    first[rarest] = index + 1;
  }

  function matchesQuery(index: number, query: Int32Array, length: number): boolean {
    const start = starts[index]!;
    const end = starts[index + 1]!;
    const match = matches[index]!;
    if (match === 'broad') {
      for (let i = start; i < end; i++) if (seen[column[i]!] !== turn) return false;
      return true;
    }
    if (end - start === 1 && match === 'phrase') return true; // its word is what led here
    return matchSlice(match, column, start, end, query, 0, length);
  }

  for (const negative of negatives) enter(negative);
  for (let index = 0; index < negatives.length; index++) file(index);

  return {
    add(negative) {
      const index = enter(negative);
      file(index);
      return index;
    },
    remove(index) {
      for (let i = starts[index]!; i < starts[index + 1]!; i++) {
        const word = column[i]!;
        for (let before = -1, at = first[word]!; at !== 0; before = at - 1, at = next[at - 1]!) {
          if (at - 1 !== index) continue;
          if (before < 0) first[word] = next[index]!;
          else next[before] = next[index]!;
          return;
        }
      }
    },
    isWordless: (index) => starts[index] === starts[index + 1],
    matching(query, most = Infinity) {
      const count = dictionary.code(query);
      const ids = dictionary.coded;
      let matching = 0;
      turn += 1;
      let known = 0;
      for (let i = 0; i < count; i++) {
        const word = ids[i]!;
        if (word < 0 || seen[word] === turn) continue;
        seen[word] = turn;
        distinct[known++] = word;
      }
      for (let i = 0; i < known; i++) {
        for (let at = first[distinct[i]!]!; at !== 0; at = next[at - 1]!) {
          if (!matchesQuery(at - 1, ids, count)) continue;
          if (matching === found.length) found = grown(found, 2 * matching);
          found[matching++] = at - 1;
          if (matching >= most) return ascending(found, matching);
        }
      }
      return ascending(found, matching);
    },
  };
}

const MANY = 40;

/** The first `count` of them in order; mostly few, so each is put in its place by moving the larger ones up. */
function ascending(found: Uint32Array, count: number): number[] {
  if (count > MANY) return Array.from(found.subarray(0, count).sort());
  const ordered: number[] = [];
  for (let i = 0; i < count; i++) {
    const index = found[i]!;
    let at = i;
    for (; at > 0 && ordered[at - 1]! > index; at--) ordered[at] = ordered[at - 1]!;
    ordered[at] = index;
  }
  return ordered;
}
