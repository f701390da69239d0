import digamma from '@stdlib/math-base-special-digamma';
import trigamma from '@stdlib/math-base-special-trigamma';
import { sumFigures, type Figures } from '../figures';

export type Contender = { id: string; createdAt: string } & Pick<
  Figures,
  'clicks' | 'costMicros' | 'conversions'
>;

/** What a keyword of a group can be expected to pay for a conversion; the rates that led there. */
export type Expected = { id: string; cpcMicros: number; cvr: number; costMicros: number };

/** Clicks at the group's rate that each keyword is taken to have had already. */
const PULL = 50;

/**
 * Which keyword of a group of duplicates should stay: the one with the lowest expected cost of a conversion (rules
 * 5.4). Ties go to more conversions, more clicks, the older.
 * @param accountCvr used where the group has no conversion; null or 0 leaves the cost undefined
 * @returns best first, with the numbers that say why; a cost is Infinity where it is undefined
 * @example rankSurvivors([{ id: 'a', createdAt: '2026-01-01', clicks: 10, costMicros: 9, conversions: 0 }, { id: 'b', createdAt: '2026-01-01', clicks: 10, costMicros: 9, conversions: 1 }], null)[0]?.id // 'b'
 */
export function rankSurvivors(group: readonly Contender[], accountCvr: number | null): Expected[] {
  const { cvr: pooledCvr, cpcMicros: pooledCpc } = pooled(group, accountCvr);
  const expected = new Map(
    group.map((keyword): [Contender, Expected] => {
      const own = keyword.clicks ?? 0;
      const cpcMicros = own > 0 ? (keyword.costMicros ?? 0) / own : pooledCpc;
      const cvr = ((keyword.conversions ?? 0) + PULL * pooledCvr) / (own + PULL);
      return [keyword, { id: keyword.id, cpcMicros, cvr, costMicros: cvr > 0 ? cpcMicros / cvr : Infinity }];
    }),
  );
  return [...group]
    .sort((a, b) => {
      const [costA, costB] = [expected.get(a)!.costMicros, expected.get(b)!.costMicros];
      if (costA !== costB) return costA - costB;
      return (
        (b.conversions ?? 0) - (a.conversions ?? 0) ||
        (b.clicks ?? 0) - (a.clicks ?? 0) ||
        (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0)
      );
    })
    .map((keyword) => expected.get(keyword)!);
}

/** The rate and the price of a click that keywords of a group have in common. */
function pooled(group: readonly Contender[], accountCvr: number | null) {
  const { clicks, conversions, costMicros } = sumFigures(group);
  const hasClicks = clicks !== null && clicks > 0;
  return {
    cvr: hasClicks && (conversions ?? 0) > 0 ? conversions! / clicks : (accountCvr ?? 0),
    cpcMicros: hasClicks ? (costMicros ?? 0) / clicks : 0,
  };
}

/**
 * How sure it is that the suggested survivor should stay (rules 5.5), 0..1: the least probability, over the others, that
 * its conversions cost less than theirs. One without a click has nothing to hand over, so it is sure beside one with some.
 * @param group as `rankSurvivors` takes it
 * @example certaintyOfSurvivor([{ id: 'a', createdAt: '', clicks: 10, costMicros: 9, conversions: 1 }, { id: 'b', createdAt: '', clicks: 0, costMicros: 0, conversions: 0 }], null) // 1
 */
export function certaintyOfSurvivor(group: readonly Contender[], accountCvr: number | null): number {
  const [best] = rankSurvivors(group, accountCvr);
  const survivor = group.find(({ id }) => id === best?.id);
  if (!survivor || (survivor.clicks ?? 0) === 0) return 0;
  const { cvr } = pooled(group, accountCvr);
  let least = 1;
  for (const other of group) {
    if (other === survivor || (other.clicks ?? 0) === 0) continue;
    least = Math.min(least, cvr > 0 ? chanceOfLess(survivor, other, cvr) : 0);
  }
  return least;
}

/** The probability that a conversion of `one` costs less than one of `other`; both have clicks. */
function chanceOfLess(one: Contender, other: Contender, cvr: number): number {
  const perClick = (keyword: Contender) => (keyword.costMicros ?? 0) / keyword.clicks!;
  if (perClick(one) === 0) return perClick(other) === 0 ? 0 : 1;
  if (perClick(other) === 0) return 0;
  const [a, b] = [logRateOf(one, cvr), logRateOf(other, cvr)];
  const dearer = Math.log(perClick(one) / perClick(other));
  return b.weights.reduce((sum, weight, i) => sum + weight * shareAbove(a, b.first + i * b.step + dearer), 0);
}

/** Points at which the distribution of a rate is held. */
const POINTS = 200;
/** How far to either side of the mean, in standard deviations. */
const TAILS = 9;
/** Where every click converted, hardly any doubt is left. */
const LEAST = 1e-6;

/** The distribution of the logarithm of a rate: weights that sum to 1, at points that are a step apart. */
type LogRate = { first: number; step: number; weights: readonly number[]; upTo: readonly number[] };

/**
 * What is known of a keyword's rate: a Beta distribution, pulled to the rate of its group. It is held by its logarithm, whose
 * density x^α (1 − x)^(β − 1) is smooth for every α.
 */
function logRateOf({ clicks, conversions }: Contender, cvr: number): LogRate {
  const converted = Math.min(conversions ?? 0, clicks!);
  const alpha = converted + PULL * cvr;
  const beta = Math.max(LEAST, clicks! - converted + PULL * Math.max(0, 1 - cvr));
  const mean = digamma(alpha) - digamma(alpha + beta);
  const deviation = Math.sqrt(trigamma(alpha) - trigamma(alpha + beta));
  const first = mean - TAILS * deviation;
  const step = (Math.min(0, mean + TAILS * deviation) - first) / POINTS;
  const heights = Array.from({ length: POINTS }, (_, i) => {
    const log = first + (i + 0.5) * step;
    return alpha * log + (beta - 1) * Math.log(-Math.expm1(log));
  });
  const top = Math.max(...heights);
  const raw = heights.map((height) => Math.exp(height - top));
  const all = raw.reduce((sum, weight) => sum + weight, 0);
  const weights = raw.map((weight) => weight / all);
  let below = 0;
  const upTo = [0, ...weights.map((weight) => (below += weight))];
  return { first: first + step / 2, step, weights, upTo };
}

/** The share of a distribution that lies above a logarithm, straight between its points. */
function shareAbove({ first, step, upTo }: LogRate, log: number): number {
  const at = Math.min(POINTS, Math.max(0, (log - first) / step + 0.5));
  const before = Math.min(POINTS - 1, Math.floor(at));
  return 1 - (upTo[before]! + (at - before) * (upTo[before + 1]! - upTo[before]!));
}
