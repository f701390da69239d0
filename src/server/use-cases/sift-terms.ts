import { addFigures, noFigures } from '@/core';
import type { TermsPage, TermsQuery, WordsAnswer, WordsQuery } from '@/contracts/sift';
import { costOfWindow, findLines, findWords, sortLines, toTermLine } from '../compute/lines';
import type { Deps } from './deps';
import { openWorkbench, requireAccount } from './open-workbench';

const MOST_WORDS = 300;

/** A page of search terms in a view of Sift, with the counts of all views under the same filters. */
export async function listTerms(deps: Deps, slug: string, query: TermsQuery): Promise<TermsPage> {
  const account = await requireAccount(deps, slug);
  const bench = await openWorkbench(deps, account, query.days);
  const byView = findLines(bench, query, account);
  const lines = byView[query.view];
  const sums = { terms: lines.length, ...noFigures() };
  for (const line of lines) addFigures(sums, line);
  return {
    total: lines.length,
    counts: {
      remaining: byView.remaining.length,
      stopped: byView.stopped.length,
      kept: byView.kept.length,
      already: byView.already.length,
    },
    sums,
    ...costOfWindow(bench),
    offset: query.offset,
    lines: sortLines(bench, lines, query, account)
      .slice(query.offset, query.offset + query.most)
      .map((line) => toTermLine(bench, line, account)),
  };
}

/** The words of the terms that a view shows, ranked by spend without return. */
export async function listWords(deps: Deps, slug: string, query: WordsQuery): Promise<WordsAnswer> {
  const account = await requireAccount(deps, slug);
  const bench = await openWorkbench(deps, account, query.days);
  // Choosing a run of words narrows the terms, not the words it was chosen from.
  const lines = findLines(bench, { ...query, holding: '' }, account)[query.view];
  const grams = findWords(bench, lines, query.n);
  return {
    total: grams.length,
    lines: grams
      .slice(0, MOST_WORDS)
      .map(({ ngram, terms, costMicros, withoutReturnMicros, conversions }) => ({
        ngram,
        terms,
        costMicros: costMicros ?? 0,
        withoutReturnMicros,
        conversions,
      })),
  };
}
