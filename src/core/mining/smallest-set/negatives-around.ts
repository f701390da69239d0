import type { NegativeText } from '../../gate';
import { makeCandidates } from './candidates';
import { chooseGreedily, withoutNeedless } from './greedy';

/**
 * A small set of negatives that hold an n-gram, stop none of the texts that must stay open, and stop as much of the
 * unwanted ones as they can (rules 9.1, by the greedy choice alone: many are asked for at once).
 * @param question weights of the unwanted texts, all of which hold the n-gram, in whole numbers; `limit` is the most
 * negatives there may be
 * @returns those preferred first
 * @example negativesAround({ ngram: 'jobs', unwanted: [{ text: 'hive jobs', weight: 2 }], open: ['bee jobs'], limit: 9 }) // [{ text: 'hive jobs', match: 'exact' }]
 */
export function negativesAround({
  ngram,
  unwanted,
  open,
  limit,
}: {
  /** normalised */
  ngram: string;
  unwanted: readonly { text: string; weight: number }[];
  open: readonly string[];
  limit: number;
}): NegativeText[] {
  const weighed = unwanted.map(({ text, weight }) => ({ text, costMicros: weight }));
  const candidates = makeCandidates(weighed, open, { holding: ngram });
  return withoutNeedless(candidates, chooseGreedily(candidates, limit))
    .sort((a, b) => a - b)
    .map((j) => candidates.negativeAt(j));
}
