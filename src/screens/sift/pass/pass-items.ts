import type { PassAnswer, PassTerm, PassWord } from '@/contracts/pass';

/** The steps of the pass, in order. */
export const STEPS = ['words', 'terms', 'left'] as const;
export type Step = (typeof STEPS)[number];

/** One thing of the pass that can be decided. */
export type PassItem =
  { step: 'words'; key: string; word: PassWord } | { step: 'terms' | 'left'; key: string; term: PassTerm };

/** All that can be decided, step after step. */
export function itemsOf({ words, terms, left }: PassAnswer): PassItem[] {
  const ofTerms = (step: 'terms' | 'left', all: readonly PassTerm[]) =>
    all.map((term): PassItem => ({ step, key: `term ${term.id}`, term }));
  return [
    ...words.map((word): PassItem => ({ step: 'words', key: `word ${word.ngram}`, word })),
    ...ofTerms('terms', terms),
    ...ofTerms('left', left.first),
  ];
}
