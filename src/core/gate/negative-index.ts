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
  let size = 0;
  /**
   * Negative n is records[4n .. 4n + 4): the next one under its rarest word, one more than its index (0 at the end); its
   * match type and length in words (see `shapeOf`); where its words begin in the column; its second rarest word, −1 for
   * none. Most candidates are told apart by that alone.
   */
  let records = new Int32Array(4 << 6);
  let column = new Uint32Array(64);
  let columnEnd = 0;
  /** Word w was said by uses[w] negatives; the first of those filed under w is first[w], one more than its index. */
  const uses: number[] = [];
  const first: number[] = [];
  /** The query in which word w was seen last. */
  let seen = new Uint32Array(64);
  let turn = 0;
  /** The query's words that are known, each once. */
  const distinct: number[] = [];
  let found = new Uint32Array(64);

  function enter({ text, match }: NegativeText): number {
    const count = dictionary.internAll(text);
    const start = columnEnd;
    columnEnd += count;
    if (columnEnd > column.length) column = grown(column, 2 * columnEnd);
    const ids = dictionary.coded.subarray(0, count);
    column.set(ids, start);
    while (uses.length < dictionary.size) {
      uses.push(0);
      first.push(0);
    }
    if (seen.length < dictionary.size) seen = grown(seen, 2 * dictionary.size);
    for (const id of new Set(ids)) uses[id]! += 1;
    if (4 * size === records.length) records = grown(records, 2 * records.length);
    records.set([0, shapeOf(match, count), start, -1], 4 * size);
    return size++;
  }

  const startOf = (index: number) => records[4 * index + START]!;
  const lengthOf = (index: number) => records[4 * index + SHAPE]! >> 2;

  /** The rarest word of a negative that is not `but`, or −1. */
  function rarestOf(index: number, but = -1): number {
    let rarest = -1;
    for (let i = startOf(index), end = i + lengthOf(index); i < end; i++) {
      const word = column[i]!;
      if (word !== but && (rarest < 0 || uses[word]! < uses[rarest]!)) rarest = word;
    }
    return rarest;
  }

  function file(index: number) {
    const rarest = rarestOf(index);
    if (rarest < 0) return;
    records[4 * index] = first[rarest]!;
    records[4 * index + OTHER] = rarestOf(index, rarest);
    first[rarest] = index + 1;
  }

  /** Of a candidate, whose rarest word the query holds. */
  function matchesQuery(index: number, query: Int32Array, queryLength: number): boolean {
    const at = 4 * index;
    const other = records[at + OTHER]!;
    if (other >= 0 && seen[other] !== turn) return false;
    const shape = records[at + SHAPE]!;
    const length = shape >> 2;
    const start = records[at + START]!;
    if ((shape & 3) === BROAD) {
      if (length <= 2) return true; // both of its words are there
      for (let i = start; i < start + length; i++) if (seen[column[i]!] !== turn) return false;
      return true;
    }
    if ((shape & 3) === PHRASE) {
      if (length === 1) return true;
      return (
        length <= queryLength && matchSlice('phrase', column, start, start + length, query, 0, queryLength)
      );
    }
    return (
      length === queryLength && matchSlice('exact', column, start, start + length, query, 0, queryLength)
    );
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
      for (let i = startOf(index), end = i + lengthOf(index); i < end; i++) {
        const word = column[i]!;
        for (let before = -1, at = first[word]!; at !== 0; before = at - 1, at = records[4 * before]!) {
          if (at - 1 !== index) continue;
          if (before < 0) first[word] = records[4 * index]!;
          else records[4 * before] = records[4 * index]!;
          return;
        }
      }
    },
    isWordless: (index) => lengthOf(index) === 0,
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
        for (let at = first[distinct[i]!]!; at !== 0; at = records[4 * (at - 1)]!) {
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

const [SHAPE, START, OTHER] = [1, 2, 3];
const [BROAD, PHRASE, EXACT] = [0, 1, 2];

/** Match type in the lowest two bits, length in words above. */
function shapeOf(match: MatchType, length: number): number {
  return (length << 2) | (match === 'broad' ? BROAD : match === 'phrase' ? PHRASE : EXACT);
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
