import { probabilityAtFault } from './judge-ngrams';

/** What a word brought in one campaign, and what was due there. */
export type Part = { campaign: string; expected: number; conversions: number; needed: number };

/**
 * The campaigns in which a word brought something and is not surely at fault, judged there as it is in the account
 * (rules 7.12, 7.14).
 * @param rows of the terms that hold it, in any order; `needed` is NaN without a target
 * @param spread of the factors of the account's words
 * @param level 0..1
 * @example whereItPays([{ campaign: 'c1', expected: 2, conversions: 2, needed: NaN }, { campaign: 'c2', expected: 9, conversions: 0, needed: NaN }], 1, 0.8) // new Set(['c1'])
 */
export function whereItPays(rows: Iterable<Part>, spread: number, level: number): Set<string> {
  const sums = new Map<string, Part>();
  for (const { campaign, expected, conversions, needed } of rows) {
    let sum = sums.get(campaign);
    if (!sum) sums.set(campaign, (sum = { campaign, expected: 0, conversions: 0, needed: NaN }));
    sum.expected += expected;
    sum.conversions += conversions;
    if (!Number.isNaN(needed)) sum.needed = (sum.needed || 0) + needed;
  }
  const pays = (sum: Part) => sum.conversions > 0 && probabilityAtFault(sum, spread) < level;
  return new Set([...sums.values()].filter(pays).map(({ campaign }) => campaign));
}
