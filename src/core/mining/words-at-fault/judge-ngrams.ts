import gammainc from '@stdlib/math-base-special-gammainc';
import {
  countLevel,
  slotsOfWanted,
  sumLevels,
  textOfNgram,
  type FoundNgram,
  type NgramLevel,
} from '../ngrams/ngram-level';
import { createNgramValues } from '../ngrams/ngram-values';
import type { CodedTexts } from '../texts/term-table';
import type { JudgedTexts } from './expected';
import { fitFactorSpread, type WordCount } from './factor-spread';

/** An n-gram, what it brought over all days that are kept, and how surely it is at fault (rules 7.12). */
export type WordAtFault = {
  ngram: string;
  /** distinct terms that hold it, clicked or not */
  terms: number;
  clicks: number;
  conversions: number;
  /** conversions that the ad groups of its terms would have brought in their place */
  expected: number;
  /** that it surely brings its terms below what their ad groups bring, 0..1 */
  probability: number;
};

export type Longest = 1 | 2 | 3;

/** Half of what its ad groups bring: a word below that is at fault, whatever its terms cost. */
const HALF = 0.5;

/**
 * The probability that a word's factor on its ad groups' rates lies below the limit (rules 7.12), 0..1: half of them, or
 * less where less would reach the target.
 * @param word `expected` above 0; `needed` are the conversions that its cost must bring at the target, NaN without one
 * @param a the spread of factors, as fitFactorSpread gives it
 * @example probabilityAtFault({ conversions: 0, expected: 2, needed: NaN }, 1) // 0.7768698398515702
 */
export function probabilityAtFault(
  { conversions, expected, needed }: WordCount & { needed: number },
  a: number,
): number {
  const limit = Number.isNaN(needed) ? HALF : Math.min(HALF, needed / expected);
  return gammainc((a + expected) * limit, a + conversions);
}

/**
 * Whether an n-gram is less than half likely to be at fault whatever it needs: most that are judged are, and their probability need not
 * be known. The median of a gamma distribution is above its shape less a third.
 * Source: Chen and Rubin 1986, Statistics & Probability Letters 4:281.
 */
export const isSurelyFine = (conversions: number, expected: number, a: number): boolean =>
  (a + expected) * HALF <= a + conversions - 1 / 3;

/** The spread of the factors of an account's single words (rules 7.12). */
function spreadOfWords(table: CodedTexts, texts: JudgedTexts, known: Uint32Array, first: NgramLevel): number {
  const { starts, wordIds } = table;
  const conversions = createNgramValues(table.dictionary.size);
  for (const t of known) {
    const brought = texts.conversions[t]!;
    if (brought === 0) continue;
    for (let i = starts[t]!; i < starts[t + 1]!; i++) conversions.add(wordIds[i]!, t, brought);
  }
  const words: WordCount[] = [];
  for (let word = 0; word < first.size; word++) {
    if (!(first.values.valueOf(word) > 0)) continue; // no click
    words.push({ expected: first.values.valueOf(word), conversions: conversions.valueOf(word) });
  }
  return fitFactorSpread(words);
}

/**
 * Judges the n-grams of up to `longest` words.
 * @param texts of the table; those without clicks that are known say nothing
 * @param least n-grams whose ad groups would have brought less are left out, and so is what holds them: it can bring no
 * more; 0 for all that have a click
 * @returns surest first, then the most expected, then by text; and how alike the factors of single words are
 * @example judgeNgrams(codeTexts(['hive jobs']), { clicks: Float64Array.of(90), conversions: Float64Array.of(0), expected: Float64Array.of(3), needed: Float64Array.of(NaN) }, 1, 1).words.length // 2
 */
export function judgeNgrams(
  table: CodedTexts,
  texts: JudgedTexts,
  longest: Longest,
  least: number,
): { words: WordAtFault[]; spread: number } {
  const { known, expected } = knownOf(texts);
  const levels: NgramLevel[] = [];
  const found: FoundNgram[] = [];
  for (let length = 1; length <= longest; length++) {
    const level = countLevel(table, known, expected, levels, length === 1 ? -Infinity : least);
    levels.push(level);
    for (let ngram = 0; ngram < level.size; ngram++) {
      const due = level.values.valueOf(ngram);
      if (due > 0 && due >= least) found.push({ length, ngram }); // above 0: it has a click
    }
  }
  const spread = spreadOfWords(table, texts, known, levels[0]!);
  const sums = createSums(found.length, texts, known);
  sumLevels(table, known, levels, slotsOfWanted(levels, found), sums);
  const words = found
    .map((one, slot): WordAtFault => {
      const { needed, ...of } = sums.of(slot);
      const word = {
        ngram: textOfNgram(table, levels, one),
        ...of,
        expected: levels[one.length - 1]!.values.valueOf(one.ngram),
      };
      return { ...word, probability: probabilityAtFault({ ...word, needed }, spread) };
    })
    .sort((x, y) => y.probability - x.probability || y.expected - x.expected || (x.ngram < y.ngram ? -1 : 1));
  return { words, spread };
}

/** Texts whose clicks are known, ascending, and what was due of each. */
function knownOf({ clicks, expected }: JudgedTexts) {
  const all = new Uint32Array(clicks.length);
  const due = new Float64Array(clicks.length);
  let count = 0;
  for (let t = 0; t < clicks.length; t++) {
    if (Number.isNaN(clicks[t]!)) continue;
    all[count] = t;
    due[count++] = expected[t]!;
  }
  return { known: all.subarray(0, count), expected: due.subarray(0, count) };
}

/** What a record holds, in this order. */
const [TERMS, LAST, CLICKS, CONVERSIONS, NEEDED, RECORD] = [0, 1, 2, 3, 4, 5];

/** Sums of the texts of each n-gram, by slots from 0; an n-gram that repeats in a text is added once. */
function createSums(slots: number, texts: JudgedTexts, known: Uint32Array) {
  /** Slot s owns records[5s .. 5s + 5): texts, the text added last + 1, clicks, conversions, needed conversions. */
  const records = new Float64Array(RECORD * slots);
  let text = 0;
  return {
    turnTo(t: number) {
      text = known[t]!;
    },
    add(slot: number) {
      const at = RECORD * slot;
      if (records[at + LAST] === text + 1) return;
      records[at + LAST] = text + 1;
      const isFirst = records[at + TERMS]!++ === 0;
      records[at + CLICKS]! += texts.clicks[text]!;
      records[at + CONVERSIONS]! += texts.conversions[text]!;
      const must = texts.needed[text]!;
      if (isFirst) records[at + NEEDED] = must;
      else if (!Number.isNaN(must)) records[at + NEEDED] = (records[at + NEEDED]! || 0) + must;
    },
    of(slot: number) {
      const at = RECORD * slot;
      return {
        terms: records[at + TERMS]!,
        clicks: records[at + CLICKS]!,
        conversions: records[at + CONVERSIONS]!,
        needed: records[at + NEEDED]!,
      };
    },
  };
}
