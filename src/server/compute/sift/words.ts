import { compareWithUndefinedLast, countCodedNgrams, normalise, type Ngram } from '@/core';
import type { SiftFilters, WordLine, WordsQuery } from '@/contracts/sift';
import type { Workbench } from '../workbench';
import { queriesOf, type Lines } from './lines';
import { foldedOf } from './pick-terms';

/** The most n-grams in an answer. A ranking by share looks only at those that cost most without return. */
const MOST_SHOWN = 300;
const MOST_RANKED_BY_SHARE = 3_000;

/** The n-grams of n words in the lines, in rank. N-grams that people tagged as neutral are left out (rules 7.5). */
export function findWords(
  bench: Workbench,
  lines: Lines,
  { n, rank, forms }: Pick<WordsQuery, 'n' | 'rank'> & Pick<SiftFilters, 'forms'>,
): WordLine[] {
  const { snapshot, neutralWords, protectedOwn } = bench;
  const folded = foldedOf(snapshot);
  const neutral = new Set(neutralWords);
  const ngrams = countCodedNgrams(forms === 'yes' ? folded : snapshot.served.table, queriesOf(bench, lines), {
    ...{ from: n, to: n },
    by: rank === 'terms' ? 'terms' : 'withoutReturnMicros',
    most: (rank === 'share' ? MOST_RANKED_BY_SHARE : MOST_SHOWN) + neutral.size,
  });
  const shown = ngrams.filter((ngram) => !neutral.has(ngram.ngram));
  if (rank === 'share') shown.sort(byShare);
  const kept = new Set(protectedOwn.map((p) => p.text));
  return shown.slice(0, MOST_SHOWN).map((ngram) => ({
    ngram: ngram.ngram,
    forms: forms === 'yes' ? otherForms(ngram.ngram, folded.formsOf) : [],
    isKept: kept.has(normalise(ngram.ngram)),
    terms: ngram.terms,
    costMicros: ngram.costMicros ?? 0,
    withoutReturnMicros: ngram.withoutReturnMicros,
    conversions: ngram.conversions,
  }));
}

const shareWithout = ({ costMicros, withoutReturnMicros }: Ngram) =>
  costMicros ? withoutReturnMicros / costMicros : null;

function byShare(a: Ngram, b: Ngram): number {
  return (
    compareWithUndefinedLast(shareWithout(a), shareWithout(b), 'desc') ||
    b.withoutReturnMicros - a.withoutReturnMicros
  );
}

/** Forms of a single word, or of each word of an n-gram, that were counted with it. */
function otherForms(ngram: string, formsOf: (word: string) => string[]): string[] {
  return ngram.split(' ').flatMap((word) => formsOf(word).filter((form) => form !== word));
}
