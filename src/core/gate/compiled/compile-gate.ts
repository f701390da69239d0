import { createNegativeIndex } from './negative-index';
import type { NegativeText } from '../negative';

/** Many negatives, compiled so that a query looks only at those that share their rarest word with it. */
export type Gate = {
  /** Indexes of all negatives that match the query, ascending. */
  stoppers(query: string): readonly number[];
  /** The same for a query of the words of the negative at an index, itself among them. */
  stoppersOfTextOf(index: number): readonly number[];
  isStopped(query: string): boolean;
  /** Indexes of the negatives without a word: they keep their index and stop nothing (1.2). */
  readonly wordless: readonly number[];
};

/**
 * Compiles negatives for many queries. Answers are those of `stops` for each pair.
 * @example compileGate([{ text: 'free', match: 'broad' }]).stoppers('free hive') // [0]
 */
export function compileGate(negatives: readonly NegativeText[]): Gate {
  const index = createNegativeIndex(negatives);
  return {
    stoppers: (query) => index.matching(query),
    stoppersOfTextOf: (at) => index.matchingTextOf(at),
    isStopped: (query) => index.matching(query, 1).length > 0,
    wordless: negatives.flatMap((_, i) => (index.isWordless(i) ? [i] : [])),
  };
}
