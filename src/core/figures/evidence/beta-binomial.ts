import digamma from '@stdlib/math-base-special-digamma';
import gammaln from '@stdlib/math-base-special-gammaln';
import trigamma from '@stdlib/math-base-special-trigamma';

/** Some things with the same clicks and conversions (0 ≤ conversions ≤ clicks, fractions allowed), and how many they are. */
export type CountedPair = { clicks: number; conversions: number; times: number };

/** A Beta(μM, (1 − μ)M) distribution: its mean μ, 0..1, and its strength M, in clicks. */
export type BetaFit = { mean: number; strength: number };

/**
 * The Beta distribution of rates under which the conversions are the likeliest: the maximum of the beta–binomial
 * likelihood, by Newton's method on the logit of the mean and the logarithm of the strength. A step that does not
 * climb is halved; where the surface bends upwards, the gradient is followed. Since there can be more tops than one, it
 * begins at several points, and the highest top counts.
 * @param pairs at least one conversion, and at least one click without one
 * @param bounds least and most strength
 * Source: Griffiths 1973, Biometrics 29:637; Minka 2000, Estimating a Dirichlet distribution.
 * @example Math.round(fitBetaBinomial([{ clicks: 10, conversions: 0, times: 10 }, { clicks: 10, conversions: 2, times: 10 }], [2, 5_000]).mean * 100) // 10
 */
export function fitBetaBinomial(pairs: readonly CountedPair[], [least, most]: [number, number]): BetaFit {
  const bounds: [number, number] = [Math.log(least), Math.log(most)];
  const logits = [logitOfPooled(pairs), logitOfRates(pairs)];
  const starts = [least, FIRST_STRENGTH, most].flatMap((strength) =>
    logits.map((logit): Point => ({ logit, logStrength: clamp(Math.log(strength), bounds) })),
  );
  const tops = starts.map((start) => climb(pairs, start, bounds));
  const { at } = tops.reduce((best, top) => (top.height > best.height ? top : best));
  return { mean: meanOf(at), strength: Math.exp(at.logStrength) };
}

/** The top that is reached from a point. A few terms can have two: one where rates differ widely, one where they do not. */
function climb(pairs: readonly CountedPair[], start: Point, bounds: [number, number]) {
  let at = start;
  let height = logLikelihood(pairs, at);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const step = stepFrom(pairs, at, bounds);
    let [size, next] = [1, at];
    for (; size > SMALLEST_STEP; size /= 2) {
      next = {
        logit: at.logit + size * step.logit,
        logStrength: clamp(at.logStrength + size * step.logStrength, bounds),
      };
      const reached = logLikelihood(pairs, next);
      if (reached < height - NOISE * Math.abs(height)) continue;
      height = reached;
      break;
    }
    if (size <= SMALLEST_STEP) break;
    const moved = Math.abs(next.logit - at.logit) + Math.abs(next.logStrength - at.logStrength);
    at = next;
    if (moved < CLOSE_ENOUGH) break;
  }
  return { at, height };
}

/** In clicks: where the climb in the middle begins. */
const FIRST_STRENGTH = 50;
const MOST_ROUNDS = 200;
const SMALLEST_STEP = 1e-9;
const CLOSE_ENOUGH = 1e-11;
/**
 * Near the top the surface is flatter than its sums are exact: there the step is believed, for slopes are exact far longer.
 */
export const NOISE = 1e-13;
/** The farthest that one step goes, on either scale. */
const LONGEST_STEP = 2;

type Point = { logit: number; logStrength: number };

const meanOf = ({ logit }: Point) => 1 / (1 + Math.exp(-logit));
const clamp = (value: number, [least, most]: [number, number]) => Math.min(most, Math.max(least, value));

function logitOfPooled(pairs: readonly CountedPair[]): number {
  let [clicks, conversions] = [0, 0];
  for (const { clicks: n, conversions: c, times } of pairs) {
    clicks += n * times;
    conversions += c * times;
  }
  return Math.log(conversions / (clicks - conversions));
}

/** The rates of the terms weigh alike here, however many clicks each has. */
function logitOfRates(pairs: readonly CountedPair[]): number {
  let [count, sum] = [0, 0];
  for (const { clicks, conversions, times } of pairs) {
    count += times;
    sum += (times * conversions) / clicks;
  }
  return Math.log(sum / (count - sum));
}

function logLikelihood(pairs: readonly CountedPair[], at: Point): number {
  const [mean, strength] = [meanOf(at), Math.exp(at.logStrength)];
  const [alpha, beta] = [mean * strength, (1 - mean) * strength];
  const [ofAlpha, ofBeta, ofStrength] = [gammaln(alpha), gammaln(beta), gammaln(strength)];
  let sum = 0;
  for (const { clicks: n, conversions: c, times } of pairs) {
    const won = c === 0 ? 0 : gammaln(alpha + c) - ofAlpha;
    sum += times * (won + gammaln(beta + n - c) - ofBeta - gammaln(strength + n) + ofStrength);
  }
  return sum;
}

/** A step uphill: Newton's where the surface bends downwards, along the gradient elsewhere, and along a bound where it holds. */
function stepFrom(pairs: readonly CountedPair[], at: Point, [least, most]: [number, number]): Point {
  const slopes = slopesAt(pairs, at);
  const isHeld = (at.logStrength <= least && slopes.y < 0) || (at.logStrength >= most && slopes.y > 0);
  if (isHeld) return { logit: short(slopes.x / Math.abs(slopes.xx || 1)), logStrength: 0 };
  const determinant = slopes.xx * slopes.yy - slopes.xy ** 2;
  if (slopes.xx < 0 && determinant > 0) {
    const logit = (slopes.xy * slopes.y - slopes.yy * slopes.x) / determinant;
    const logStrength = (slopes.xy * slopes.x - slopes.xx * slopes.y) / determinant;
    const longest = Math.max(Math.abs(logit), Math.abs(logStrength));
    const scale = longest > LONGEST_STEP ? LONGEST_STEP / longest : 1;
    return { logit: scale * logit, logStrength: scale * logStrength };
  }
  return {
    logit: short(slopes.x / Math.abs(slopes.xx || 1)),
    logStrength: short(slopes.y / Math.max(Math.abs(slopes.yy), 1e-12)),
  };
}

const short = (step: number) => clamp(step, [-LONGEST_STEP, LONGEST_STEP]);

/** First and second derivatives of the log-likelihood; x is the logit of the mean, y the logarithm of the strength. */
function slopesAt(pairs: readonly CountedPair[], at: Point) {
  const [mean, strength] = [meanOf(at), Math.exp(at.logStrength)];
  const [alpha, beta] = [mean * strength, (1 - mean) * strength];
  const one = [digamma(alpha), digamma(beta), digamma(strength)] as const;
  const two = [trigamma(alpha), trigamma(beta), trigamma(strength)] as const;
  let [a1, b1, s1, a2, b2, s2] = [0, 0, 0, 0, 0, 0];
  for (const { clicks: n, conversions: c, times } of pairs) {
    if (c > 0) {
      a1 += times * (digamma(alpha + c) - one[0]);
      a2 += times * (trigamma(alpha + c) - two[0]);
    }
    b1 += times * (digamma(beta + n - c) - one[1]);
    b2 += times * (trigamma(beta + n - c) - two[1]);
    s1 += times * (digamma(strength + n) - one[2]);
    s2 += times * (trigamma(strength + n) - two[2]);
  }
  const turn = mean * (1 - mean) * strength; // dα/dx = −dβ/dx
  const x = turn * (a1 - b1);
  const y = alpha * a1 + beta * b1 - strength * s1;
  return {
    ...{ x, y },
    xx: (1 - 2 * mean) * x + turn ** 2 * (a2 + b2),
    xy: x + turn * (alpha * a2 - beta * b2),
    yy: y + alpha ** 2 * a2 + beta ** 2 * b2 - strength ** 2 * s2,
  };
}
