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

/** Before a group of terms is looked at, so many impressions say that it is like the account. */
const LIKE_THE_ACCOUNT = 1_000;

/**
 * The prior of the terms that one change stops: as spread as that of the account, about the rate of clicks that they have together. What
 * a word stops may be clicked far less than the account's other terms.
 * @param group their impressions and clicks together
 * @example priorOfGroup({ alpha: 1, beta: 19 }, { impressions: 9_000, clicks: 90 }) // { alpha: 0.28, beta: 19.72 }
 */
export function priorOfGroup(
  { alpha, beta }: Prior,
  { impressions, clicks }: { impressions: number; clicks: number },
): Prior {
  const strength = alpha + beta;
  const usual = (alpha / strength) * LIKE_THE_ACCOUNT;
  const mean = (usual + Math.min(clicks, impressions)) / (LIKE_THE_ACCOUNT + impressions);
  return { alpha: strength * mean, beta: strength * (1 - mean) };
}
