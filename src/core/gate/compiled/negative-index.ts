import { grown } from '../../columns';
import { createDictionary } from '../../text';
import { createBuckets, RECORD } from './buckets';
import { holds, matchSlice } from '../match';
import type { MatchType, NegativeText } from '../negative';
import { bitOf, EVERY_WORD } from './word-bits';

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
  matching(query: string, most?: number): readonly number[];
  /** The same for a query of the words of the negative at an index, which are known already. */
  matchingTextOf(index: number): readonly number[];
};

/**
 * @param negatives filed at once: all their words are counted before the first is filed
 * @example createNegativeIndex([{ text: 'free', match: 'broad' }]).matching('free hive') // [0]
 */
export function createNegativeIndex(negatives: readonly NegativeText[]): NegativeIndex {
  const dictionary = createDictionary();
  let size = 0;
  /** Negative n says column[starts[n] .. starts[n + 1]), and is filed under the word filedUnder[n] (−1 for none). */
  let column = new Int32Array(64);
  let starts = new Int32Array(64);
  let filedUnder = new Int32Array(64);
  /** uses[w] negatives hold word w. */
  let uses = new Int32Array(64);
  /**
   * Every negative filed under word w also needs a word of the set wanted[w + 1], so that most words of most queries
   * need no look. wanted[0] stands for words that no negative holds.
   */
  let wanted = new Int32Array(64);
  /** What matches the query at hand; a match that needs more room puts a longer array here. */
  let found = new Int32Array(64);

  /** Stores the words of a negative, and counts them. @returns its index */
  function enter(text: string): number {
    const index = size++;
    const start = starts[index]!;
    const end = start + dictionary.internAll(text);
    if (end > column.length) column = grown(column, 2 * end);
    if (size === starts.length) {
      starts = grown(starts, 2 * size);
      filedUnder = grown(filedUnder, 2 * size);
    }
    if (dictionary.size >= uses.length) {
      uses = grown(uses, 2 * dictionary.size);
      wanted = grown(wanted, 2 * dictionary.size);
    }
    starts[size] = end;
    for (let i = start; i < end; i++) {
      const word = (column[i] = dictionary.coded[i - start]!);
      if (!holds(word, column, start, i)) uses[word]! += 1;
    }
    return index;
  }

  /** The rarest word of a negative, `but` excepted; −1 where there is none. */
  function rarestOf(index: number, but = -1): number {
    let rarest = -1;
    for (let i = starts[index]!; i < starts[index + 1]!; i++) {
      const word = column[i]!;
      if (word !== but && (rarest < 0 || uses[word]! < uses[rarest]!)) rarest = word;
    }
    return rarest;
  }

  function file(index: number, match: MatchType) {
    const rarest = filedUnder[index]!;
    if (rarest < 0) return;
    const start = starts[index]!;
    const other = rarestOf(index, rarest);
    wanted[rarest + 1]! |= other < 0 ? EVERY_WORD : bitOf(other);
    buckets.add(rarest, [index, other, shapeOf(match, starts[index + 1]! - start), start]);
  }

  for (const { text } of negatives) enter(text);
  const lengths = new Int32Array(dictionary.size);
  for (let index = 0; index < size; index++) {
    const rarest = (filedUnder[index] = rarestOf(index));
    if (rarest >= 0) lengths[rarest]! += 1;
  }
  const buckets = createBuckets(lengths);
  negatives.forEach(({ match }, index) => file(index, match));

  /** Puts the negatives that match the query ids[0 .. length) in `found`. @returns how many, no more than `most` */
  function match(ids: Int32Array, length: number, most: number): number {
    const { records, begins, ends } = buckets;
    const isWanted = wanted;
    let has = 0;
    for (let i = 0; i < length; i++) has |= bitOf(ids[i]!);
    let matching = 0;
    for (let i = 0; i < length; i++) {
      const word = ids[i]!;
      if ((isWanted[word + 1]! & has) === 0 || holds(word, ids, 0, i)) continue;
      const end = ends[word]!;
      for (let at = begins[word]!; at < end; at += RECORD) {
        const other = records[at + OTHER]!;
        if (other >= 0 && (bitOf(other) & has) === 0) continue; // most of them
        if (other >= 0 && !holds(other, ids, 0, length)) continue;
        if (!isMatch(records[at + SHAPE]!, records[at + START]!, ids, length)) continue;
        if (matching === found.length) found = grown(found, 2 * matching);
        found[matching++] = records[at]!;
        if (matching >= most) return matching;
      }
    }
    return matching;
  }

  /** Whether a negative matches a query that holds its two rarest words. */
  function isMatch(shape: number, start: number, ids: Int32Array, queryLength: number): boolean {
    const length = shape >> 2;
    const end = start + length;
    switch (shape & 3) {
      case BROAD:
        return length <= 2 || matchSlice('broad', column, start, end, ids, 0, queryLength);
      case PHRASE:
        return length === 1 || matchSlice('phrase', column, start, end, ids, 0, queryLength);
      default:
        return length === queryLength && matchSlice('exact', column, start, end, ids, 0, queryLength);
    }
  }

  return {
    add({ text, match }) {
      const index = enter(text);
      filedUnder[index] = rarestOf(index);
      file(index, match);
      return index;
    },
    remove(index) {
      if (filedUnder[index]! >= 0) buckets.remove(filedUnder[index]!, index);
    },
    isWordless: (index) => starts[index] === starts[index + 1],
    matching(query, most = Infinity) {
      const count = match(dictionary.coded, dictionary.code(query), most);
      return ascending(found, count);
    },
    matchingTextOf(index) {
      const [start, end] = [starts[index]!, starts[index + 1]!];
      const count = match(column.subarray(start, end), end - start, Infinity);
      return ascending(found, count); // only now: a longer array may stand in its place
    },
  };
}

/** A record: index, second rarest word (−1 for none), shape, where its words begin. */
const [OTHER, SHAPE, START] = [1, 2, 3];
const [BROAD, PHRASE, EXACT] = [0, 1, 2];

/** Match type in the lowest two bits, length in words above. */
function shapeOf(match: MatchType, length: number): number {
  return (length << 2) | (match === 'broad' ? BROAD : match === 'phrase' ? PHRASE : EXACT);
}

const NONE: readonly number[] = [];
const MANY = 40;

/** The first `count` of them in order; mostly few, so each is put in its place by moving the larger ones up. */
function ascending(found: Int32Array, count: number): readonly number[] {
  if (count === 0) return NONE; // of most queries, of which there are millions
  if (count === 1) return [found[0]!];
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
