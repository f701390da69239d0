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

/** What a step would stop, and what it risks. */
export function sumOf(
  items: readonly PassItem[],
  step: Step,
): { count: number; costMicros: number; risks: number } {
  const sum = { count: 0, costMicros: 0, risks: 0 };
  for (const item of items) {
    if (item.step !== step) continue;
    const { stops, risks } = item.step === 'words' ? item.word.places[0]! : item.term;
    sum.count += 1;
    sum.costMicros += stops.costMicros ?? 0;
    sum.risks += risks;
  }
  return sum;
}
