import type { Figures } from '../../figures';
import { createNgramValues, type NgramValues } from './ngram-values';
import { createNgramTable, type NgramTable } from './ngram-ids';
import type { CodedTexts } from '../texts/term-table';

/** Terms of a table with their figures; `term` is an index into it. */
export type CodedTerms = readonly ({ term: number } & Partial<Figures>)[];

/** All n-grams of one length. */
export type NgramLevel = {
  size: number;
  /** what an n-gram is made of: an n-gram of the level before and a last word; null at the first, where an n-gram is its word */
  ngrams: NgramTable | null;
  values: NgramValues;
  /** the n-gram that begins at each word of the terms, one term after another; −1 where none does, or none that counts */
  beginsAt: Int32Array;
};

/**
 * Finds the n-grams that are one word longer than those of the last level, and their values.
 * @param terms their indexes in the table
 * @param values of the terms, in their order
 * @param least an n-gram of the last level with a smaller value is in none
 */
export function countLevel(
  table: CodedTexts,
  terms: Uint32Array,
  values: Float64Array,
  levels: readonly NgramLevel[],
  least: number,
): NgramLevel {
  const { starts, wordIds } = table;
  const before = levels.at(-1);
  const counts = before && whichCount(before, least);
  const ngrams = before ? createNgramTable() : null;
  const found = createNgramValues(ngrams ? 0 : table.dictionary.size);
  const isAll = !before && terms.length + 1 === starts.length && terms.every((term, t) => term === t);
  const beginsAt = isAll
    ? new Int32Array(wordIds.buffer, wordIds.byteOffset, wordIds.length) // the same, read as such
    : new Int32Array(before?.beginsAt.length ?? wordsIn(table, terms)).fill(-1);
  let offset = 0;
  for (let t = 0; t < terms.length; t++) {
    const term = terms[t]!;
    const start = starts[term]!;
    const length = starts[term + 1]! - start;
    for (let i = 0; i + levels.length < length; i++) {
      let ngram = wordIds[start + i]!;
      if (ngrams) {
        const first = before!.beginsAt[offset + i]!;
        const rest = before!.beginsAt[offset + i + 1]!;
        if (first < 0 || rest < 0 || counts![first] === 0 || counts![rest] === 0) continue;
        ngram = ngrams.intern(first, wordIds[start + i + levels.length]!);
      }
      if (!isAll) beginsAt[offset + i] = ngram;
      found.add(ngram, term, values[t]!);
    }
    offset += length;
  }
  return { size: ngrams?.size ?? table.dictionary.size, ngrams, values: found, beginsAt };
}

/** What sums the terms of n-grams: it is shown each term once, and told the slots of the wanted n-grams that it holds. */
export type LevelSums = { turnTo(t: number): void; add(slot: number): void };

/**
 * Sums the terms that hold some n-grams, each term read once.
 * @param terms their indexes in the table, as the levels were counted over them
 * @param slotsOf for each level, where the sums of an n-gram go, −1 for an n-gram that is not wanted
 * @param sums turns to the place of a term among `terms`
 */
export function sumLevels(
  { starts }: CodedTexts,
  terms: Uint32Array,
  levels: readonly NgramLevel[],
  slotsOf: readonly Int32Array[],
  sums: LevelSums,
): void {
  let offset = 0;
  for (let t = 0; t < terms.length; t++) {
    const term = terms[t]!;
    const end = offset + starts[term + 1]! - starts[term]!;
    sums.turnTo(t);
    for (let l = 0; l < levels.length; l++) {
      const { beginsAt } = levels[l]!;
      const slots = slotsOf[l]!;
      for (let i = offset; i < end; i++) {
        const ngram = beginsAt[i]!;
        if (ngram >= 0 && slots[ngram]! >= 0) sums.add(slots[ngram]!);
      }
    }
    offset = end;
  }
}

/** For each level, the slot of each n-gram: its place among those that are wanted, −1 where it is none of them. */
export function slotsOfWanted(levels: readonly NgramLevel[], wanted: readonly FoundNgram[]): Int32Array[] {
  const slotsOf = levels.map((level) => new Int32Array(level.size).fill(-1));
  wanted.forEach(({ length, ngram }, slot) => (slotsOf[length - 1]![ngram] = slot));
  return slotsOf;
}

/** An n-gram of the level of its length. */
export type FoundNgram = { length: number; ngram: number };

/** The words of an n-gram as one text. */
export function textOfNgram(
  { dictionary }: CodedTexts,
  levels: readonly NgramLevel[],
  { length, ngram }: FoundNgram,
): string {
  const words: string[] = [];
  for (let [at, level] = [ngram, length - 1]; level >= 0; level--) {
    const { ngrams } = levels[level]!;
    words.unshift(dictionary.wordOf(ngrams ? ngrams.lastOf(at) : at));
    if (ngrams) at = ngrams.prefixOf(at);
  }
  return words.join(' ');
}

function whichCount(level: NgramLevel, least: number): Uint8Array {
  const counts = new Uint8Array(level.size).fill(1);
  if (least === -Infinity) return counts;
  for (let ngram = 0; ngram < level.size; ngram++) if (level.values.valueOf(ngram) < least) counts[ngram] = 0;
  return counts;
}

function wordsIn({ starts }: CodedTexts, terms: Uint32Array): number {
  let count = 0;
  for (const term of terms) count += starts[term + 1]! - starts[term]!;
  return count;
}
