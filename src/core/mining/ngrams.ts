import { addFigures, noFigures, spendWithoutReturn, type Figures } from '../figures';
import { normalise } from '../text';

export type Ngram = {
  ngram: string;
  terms: number;
  /** cost of its terms whose conversions are 0 (rules 7.2), micro-units */
  withoutReturnMicros: number;
} & Figures;

/**
 * Runs of n neighbouring words with the sums of the terms that hold them (rules 7.5), costliest first, then by text.
 * Terms of the same text are summed first; a run counts once for each distinct term, however often it repeats in it.
 * Product codes are the caller's to leave out.
 * @throws RangeError unless n is 1..5
 * @example countNgrams([{ text: 'bee hive', clicks: 2 }], 1).map((g) => g.ngram) // ['bee', 'hive']
 */
export function countNgrams(
  terms: Iterable<{ text: string } & Partial<Figures>>,
  n: 1 | 2 | 3 | 4 | 5,
): Ngram[] {
  if (![1, 2, 3, 4, 5].includes(n)) throw new RangeError(`n-gram size must be 1..5; got ${String(n)}`);
  const grams = new Map<string, Ngram>();
  for (const [text, figures] of distinctTerms(terms)) {
    for (const ngram of new Set(runsOf(text.split(' '), n))) {
      let gram = grams.get(ngram);
      if (!gram) grams.set(ngram, (gram = { ngram, terms: 0, withoutReturnMicros: 0, ...noFigures() }));
      gram.terms += 1;
      gram.withoutReturnMicros += spendWithoutReturn(figures);
      addFigures(gram, figures);
    }
  }
  return [...grams.values()].sort(
    (a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0) || (a.ngram < b.ngram ? -1 : 1),
  );
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

function* runsOf(wordsOfTerm: readonly string[], n: number): Generator<string> {
  for (let at = 0; at + n <= wordsOfTerm.length; at++) yield wordsOfTerm.slice(at, at + n).join(' ');
}
