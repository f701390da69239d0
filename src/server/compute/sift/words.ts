import {
  addFigures,
  compareWithUndefinedLast,
  countCodedNgrams,
  matchTexts,
  noFigures,
  normalise,
  OFFERED_FROM,
  spendWithoutReturn,
  withoutParts,
  type Ngram,
} from '@/core';
import type { SiftFilters, WordLine, WordsQuery } from '@/contracts/sift';
import type { Workbench } from '../workbench';
import { queriesOf, type Lines } from './lines';
import { faultOf, judgingOf } from '../evidence/faults';
import { allForms, foldedOf } from './pick-terms';
import type { Steering } from '../evidence/row-targets';

/** The most n-grams in an answer. A ranking by share looks only at those that cost most without return. */
const MOST_SHOWN = 300;
const MOST_RANKED_BY_SHARE = 3_000;

type Wanted = Pick<WordsQuery, 'n' | 'rank'> & Pick<SiftFilters, 'forms'>;

/**
 * The n-grams in the lines, in rank. N-grams that people tagged as neutral are left out (rules 7.5). By fault they come in
 * any length that is judged; what can't be judged follows, by spend without return.
 */
export function findWords(bench: Workbench, lines: Lines, steering: Steering, wanted: Wanted): WordLine[] {
  if (wanted.rank !== 'fault') return findRanked(bench, lines, steering, wanted);
  const judged = findAtFault(bench, lines, steering);
  if (judged.length >= MOST_SHOWN) return judged;
  const there = new Set(judged.map(({ ngram }) => ngram));
  const others = findRanked(bench, lines, steering, { n: 1, rank: 'without', forms: 'no' });
  return [...judged, ...others.filter(({ ngram }) => !there.has(ngram))].slice(0, MOST_SHOWN);
}

/** The judged n-grams that occur in the lines, surest first; of those that surely are, none that holds another. */
function findAtFault(bench: Workbench, lines: Lines, steering: Steering): WordLine[] {
  const { snapshot, neutralWords, protectedOwn } = bench;
  const neutral = new Set(neutralWords);
  const kept = new Set(protectedOwn.map((p) => p.text));
  const lineOf = new Map(queriesOf(bench, lines).map((line) => [line.term, line]));
  const words = withoutParts(judgingOf(snapshot, steering)?.words ?? [], OFFERED_FROM);
  const shown: WordLine[] = [];
  for (const { ngram, ...fault } of words) {
    if (neutral.has(ngram)) continue;
    const sums = { terms: 0, withoutReturnMicros: 0, ...noFigures() };
    for (const t of matchTexts(snapshot.served.table, { text: ngram, match: 'phrase' })) {
      const line = lineOf.get(t);
      if (!line) continue;
      sums.terms += 1;
      sums.withoutReturnMicros += spendWithoutReturn(line);
      addFigures(sums, line);
    }
    if (sums.terms === 0) continue;
    shown.push({
      ...{ ngram, forms: [], isKept: kept.has(ngram), fault },
      ...{ terms: sums.terms, costMicros: sums.costMicros ?? 0, conversions: sums.conversions },
      withoutReturnMicros: sums.withoutReturnMicros,
    });
    if (shown.length === MOST_SHOWN) break;
  }
  return shown;
}

function findRanked(
  bench: Workbench,
  lines: Lines,
  steering: Steering,
  { n, rank, forms }: Wanted,
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
    fault: faultOf(snapshot, steering, forms === 'yes' ? allForms(snapshot, ngram.ngram) : [ngram.ngram]),
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
