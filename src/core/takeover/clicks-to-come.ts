import type { Prior } from '../figures';

/**
 * The clicks that the same impressions bring in as many days to come: those seen, drawn towards the account's own rate of clicks. Who picks
 * the costliest terms of a window picks lucky ones, too; they come lower in the next (rules 13.2).
 * @param prior of clicks by impression, fitted to the account's terms
 * @returns the clicks themselves where the impressions are unknown or fewer than the clicks
 * @example clicksToCome({ alpha: 1, beta: 19 }, { impressions: 20, clicks: 4 }) // 2.5
 */
export function clicksToCome(
  { alpha, beta }: Prior,
  { impressions, clicks }: { impressions: number | null; clicks: number },
): number {
  if (impressions === null || impressions < clicks) return clicks;
  return (impressions * (alpha + clicks)) / (alpha + beta + impressions);
}
