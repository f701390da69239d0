import type { NegativeText } from '../../gate';
import { boundByPrices } from './bound';
import { makeCandidates } from './candidates';
import { chooseGreedily, stoppedCost, withoutNeedless } from './greedy';
import { searchAll } from './search';

export type SmallestSet = {
  negatives: NegativeText[];
  /** cost of the unwanted terms that they stop */
  stoppedCostMicros: number;
  /** no set of that many negatives stops more */
  boundMicros: number;
};

/**
 * The few negatives that stop the most unwanted cost and no term that must stay open (rules 9.1). Small questions are
 * answered for certain; for large ones the set is very good, and the bound says how good it must be at least.
 * @param question costs in whole micro-units; `limit` is the most negatives there may be
 * @throws RangeError when the limit is no whole number of 0 or more
 * @example smallestSet({ unwanted: [{ text: 'free hive', costMicros: 5 }, { text: 'free kit', costMicros: 3 }], open: ['hive'], limit: 1 }).negatives // [{ text: 'free', match: 'phrase' }]
 */
export function smallestSet(question: {
  unwanted: readonly { text: string; costMicros: number }[];
  open: readonly string[];
  limit: number;
}): SmallestSet {
  const { limit } = question;
  if (!(Number.isInteger(limit) && limit >= 0))
    throw new RangeError(`the limit must be a whole number of 0 or more; got ${limit}`);
  const candidates = makeCandidates(question.unwanted, question.open);
  const answer = (chosen: readonly number[], boundMicros?: number): SmallestSet => {
    const stoppedCostMicros = stoppedCost(candidates, chosen);
    return {
      negatives: [...chosen].sort((a, b) => a - b).map((j) => candidates.negativeAt(j)),
      stoppedCostMicros,
      boundMicros: Math.max(stoppedCostMicros, Math.floor((boundMicros ?? stoppedCostMicros) + 1e-3)),
    };
  };

  const greedy = withoutNeedless(candidates, chooseGreedily(candidates, limit));
  const searched = searchAll(candidates, limit, greedy);
  if (searched?.isCertain) return answer(searched.chosen);
  const known = searched?.chosen ?? greedy;
  const bound = boundByPrices(candidates, limit, { chosen: known, cost: stoppedCost(candidates, known) });
  const filled = chooseGreedily(candidates, limit, withoutNeedless(candidates, bound.chosen));
  return answer(withoutNeedless(candidates, filled), bound.boundMicros);
}
