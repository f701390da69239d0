import betaCdf from '@stdlib/stats-base-dists-beta-cdf';
import type { Prior } from './prior';

/** What an account steers by. Money in micro-units; the ACoS is a fraction. */
export type Target =
  | { by: 'CPA'; micros: number | null }
  | { by: 'ACoS'; fraction: number | null; meanValueMicros: number | null };

/**
 * The conversion rate at which a click pays for itself (rules 7.3), 0..1.
 * @param cpcMicros of the term, or of the account where the term has no click
 * @returns null without a target or any value
 * @example breakEvenCvr(900_000, { by: 'CPA', micros: 18_000_000 }) // 0.05
 */
export function breakEvenCvr(cpcMicros: number | null, target: Target): number | null {
  const worth =
    target.by === 'CPA'
      ? target.micros
      : target.fraction !== null && target.meanValueMicros !== null
        ? target.fraction * target.meanValueMicros
        : null;
  return cpcMicros === null || worth === null || worth <= 0 ? null : Math.min(1, cpcMicros / worth);
}

type Question = Prior & { breakEvenCvr: number };

/**
 * The probability that a term's true conversion rate lies below the break-even rate, given its clicks and conversions
 * (rules 7.3), 0..1, by the regularised incomplete beta function.
 * @param question conversions beyond the clicks count as that many clicks' worth
 * @throws RangeError when a figure is negative or α + β is not above 0
 * @example probabilityMissesTarget({ clicks: 0, conversions: 0, alpha: 1, beta: 1, breakEvenCvr: 0.3 }) // 0.3
 */
export function probabilityMissesTarget(
  question: Question & { clicks: number; conversions: number },
): number {
  const { clicks, conversions, alpha, beta, breakEvenCvr: rate } = question;
  if (!(clicks >= 0 && conversions >= 0))
    throw new RangeError(`clicks and conversions must be 0 or more; got ${clicks} and ${conversions}`);
  if (!(alpha >= 0 && beta >= 0 && alpha + beta > 0))
    throw new RangeError(`alpha and beta must be 0 or more and not both 0; got ${alpha} and ${beta}`);
  const converted = Math.min(conversions, clicks);
  const [a, b] = [alpha + converted, beta + clicks - converted];
  if (rate <= 0) return 0;
  if (a === 0) return 1; // all the weight lies at 0
  if (b === 0) return 0; // all the weight lies at 1
  return rate >= 1 ? 1 : betaCdf(rate, a, b);
}

/**
 * The fewest clicks without a conversion after which a term misses its target with the given probability (7.3).
 * @param question level 0..1, 0.95 unless given
 * @returns null when no number of clicks would do
 * @example clicksThatSettle({ alpha: 1, beta: 1, breakEvenCvr: 0.05 }) // 58
 */
export function clicksThatSettle({
  level = 0.95,
  ...question
}: Question & { level?: number }): number | null {
  const settles = (clicks: number) =>
    probabilityMissesTarget({ ...question, clicks, conversions: 0 }) >= level;
  if (settles(0)) return 0;
  let [no, yes] = [0, 1];
  while (!settles(yes)) {
    [no, yes] = [yes, yes * 2];
    if (yes > Number.MAX_SAFE_INTEGER) return null;
  }
  while (yes - no > 1) {
    const middle = Math.floor((no + yes) / 2);
    if (settles(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}

/**
 * The most conversions with which so many clicks still miss the target with the given probability (7.3): the line above
 * which nothing is settled.
 * @param question level 0..1, 0.95 unless given
 * @returns a whole number of conversions; null where not even none would do
 * @example conversionsThatSettle({ clicks: 58, alpha: 1, beta: 1, breakEvenCvr: 0.05 }) // 0
 */
export function conversionsThatSettle({
  level = 0.95,
  ...question
}: Question & { clicks: number; level?: number }): number | null {
  const settles = (conversions: number) => probabilityMissesTarget({ ...question, conversions }) >= level;
  if (!settles(0)) return null;
  let [yes, no] = [0, question.clicks + 1];
  while (no - yes > 1) {
    const middle = Math.floor((no + yes) / 2);
    if (settles(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}
