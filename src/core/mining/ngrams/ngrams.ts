import { addFigures, noFigures, spendWithoutReturn, type Figures } from '../../figures';
import { normalise } from '../../text';
import {
  countLevel,
  slotsOfWanted,
  sumLevels,
  textOfNgram,
  type CodedTerms,
  type FoundNgram,
  type NgramLevel,
} from './ngram-level';
import { createNgramSums } from './ngram-sums';
import { codeTexts, type CodedTexts } from '../texts/term-table';

export type Ngram = {
  ngram: string;
  terms: number;
  /** cost of its terms whose conversions are 0 (rules 7.2), micro-units */
  withoutReturnMicros: number;
} & Figures;

export type NgramSize = 1 | 2 | 3 | 4 | 5;

/**
 * N-grams of n neighbouring words with the sums of the terms that hold them (rules 7.5), costliest first, then by text.
 * Terms of the same text are summed first; an n-gram counts once for each distinct term, however often it repeats in it.
 * Product codes are the caller's to leave out.
 * @throws RangeError unless n is 1..5
 * @example countNgrams([{ text: 'bee hive', clicks: 2 }], 1).map((g) => g.ngram) // ['bee', 'hive']
 */
export function countNgrams(terms: Iterable<{ text: string } & Partial<Figures>>, n: NgramSize): Ngram[] {
  const distinct = distinctTerms(terms);
  const figures = [...distinct.values()];
  return countCodedNgrams(
    codeTexts([...distinct.keys()]),
    figures.map((of, term) => ({ term, ...of })),
    { from: n, to: n },
  );
}

export type NgramsWanted = {
  /** lengths in words, 1..5 */
  from: NgramSize;
  to: NgramSize;
  /** only so many, those with the most of `by`; all of them unless given */
  most?: number;
  by?: 'costMicros' | 'withoutReturnMicros' | 'terms';
};

/**
 * The same over terms that are coded already, for several lengths at once. Lengths are counted one after another: where
 * only the most are wanted, an n-gram is followed up only while it could still be among them, for an n-gram can cost no more
 * than a shorter one within it.
 * @param terms `term` is an index into the table, each at most once; costs of 0 or more
 * @returns the most of `by` first (costliest unless given), then by text
 * @example countCodedNgrams(codeTexts(['bee hive', 'hive']), [{ term: 0, costMicros: 3 }, { term: 1, costMicros: 1 }], { from: 1, to: 2, most: 1 })[0]?.ngram // 'hive'
 */
export function countCodedNgrams(table: CodedTexts, terms: CodedTerms, wanted: NgramsWanted): Ngram[] {
  const { from, to, most, by = 'costMicros' } = wanted;
  for (const size of [from, to])
    if (![1, 2, 3, 4, 5].includes(size))
      throw new RangeError(`n-gram size must be 1..5; got ${String(size)}`);
  const indexes = new Uint32Array(terms.length);
  const values = new Float64Array(terms.length);
  terms.forEach((term, t) => {
    indexes[t] = term.term;
    values[t] = by === 'terms' ? 1 : by === 'costMicros' ? (term.costMicros ?? 0) : spendWithoutReturn(term);
  });
  const levels: NgramLevel[] = [];
  let found: Found[] = [];
  let least = -Infinity;
  for (let length = 1; length <= to; length++) {
    const level = countLevel(table, indexes, values, levels, least);
    levels.push(level);
    if (length < from) continue;
    for (let ngram = 0; ngram < level.size; ngram++) {
      const value = level.values.valueOf(ngram);
      if (value >= least && level.values.has(ngram)) found.push({ length, ngram, value });
    }
    if (most === undefined || found.length <= most) continue;
    least = most === 0 ? Infinity : nthLargest(found, most);
    found = found.filter(({ value }) => value >= least);
  }
  const sums = createNgramSums(found.length);
  sumLevels(table, indexes, levels, slotsOfWanted(levels, found), {
    turnTo: (t) => sums.turnTo(terms[t]!),
    add: (slot) => sums.add(slot),
  });
  return found
    .map((one, slot) => ({ ngram: textOfNgram(table, levels, one), ...sums.of(slot) }))
    .sort((a, b) => (b[by] ?? 0) - (a[by] ?? 0) || (a.ngram < b.ngram ? -1 : 1))
    .slice(0, most);
}

type Found = FoundNgram & { value: number };

function nthLargest(found: readonly { value: number }[], n: number): number {
  const values = Float64Array.from(found, ({ value }) => value).sort();
  return values[values.length - n]!;
}

function distinctTerms(terms: Iterable<{ text: string } & Partial<Figures>>): Map<string, Figures> {
  const distinct = new Map<string, Figures>();
  for (const term of terms) {
    const text = normalise(term.text);
    if (text === '') continue;
    let sum = distinct.get(text);
    if (!sum) distinct.set(text, (sum = noFigures()));
    addFigures(sum, term);
  }
  return distinct;
}
