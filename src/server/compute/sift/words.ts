import { compareWithUndefinedLast, countRuns, normalise, type Ngram } from '@/core';
import type { SiftFilters, WordLine, WordsQuery } from '@/contracts/sift';
import type { Workbench } from '../workbench';
import { queriesOf, type Lines } from './lines';
import { foldedOf } from './pick-terms';

/** Runs that are shown; by share only those are ranked that cost most without return. */
const MOST_SHOWN = 300;
const MOST_RANKED_BY_SHARE = 3_000;

/** Runs of n words in the lines, in rank; those marked neutral are left out (rules 7.5). */
export function findWords(
  bench: Workbench,
  lines: Lines,
  { n, rank, forms }: Pick<WordsQuery, 'n' | 'rank'> & Pick<SiftFilters, 'forms'>,
): WordLine[] {
  const { snapshot, neutralWords, protectedOwn } = bench;
  const folded = foldedOf(snapshot);
  const neutral = new Set(neutralWords);
  const runs = countRuns(forms === 'yes' ? folded : snapshot.served.table, queriesOf(bench, lines), {
    ...{ from: n, to: n },
    by: rank === 'terms' ? 'terms' : 'withoutReturnMicros',
    most: (rank === 'share' ? MOST_RANKED_BY_SHARE : MOST_SHOWN) + neutral.size,
  });
  const shown = runs.filter((run) => !neutral.has(run.ngram));
  if (rank === 'share') shown.sort(byShare);
  const kept = new Set(protectedOwn.map((p) => p.text));
  return shown.slice(0, MOST_SHOWN).map((run) => ({
    ngram: run.ngram,
    forms: forms === 'yes' ? otherForms(run.ngram, folded.formsOf) : [],
    isKept: kept.has(normalise(run.ngram)),
    terms: run.terms,
    costMicros: run.costMicros ?? 0,
    withoutReturnMicros: run.withoutReturnMicros,
    conversions: run.conversions,
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

/** Forms of a single word, or of each word of a run, that were counted with it. */
function otherForms(run: string, formsOf: (word: string) => string[]): string[] {
  return run.split(' ').flatMap((word) => formsOf(word).filter((form) => form !== word));
}
