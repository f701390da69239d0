import betaCdf from '@stdlib/stats-base-dists-beta-cdf';
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

/** Parts into which the rates of one keyword are cut to be held against those of another. */
const SLICES = 64;
/** How far into its tails, in standard deviations. */
const TAILS = 8;

/** The probability that a conversion of `one` costs less than one of `other`; both have clicks. */
function chanceOfLess(one: Contender, other: Contender, cvr: number): number {
  const [a, b] = [rateOf(one, cvr), rateOf(other, cvr)];
  const perClick = (keyword: Contender) => (keyword.costMicros ?? 0) / keyword.clicks!;
  const dearer = perClick(other) > 0 ? perClick(one) / perClick(other) : Infinity;
  if (dearer === 0) return 1;
  if (dearer === Infinity) return 0;
  const first = Math.max(0, b.mean - TAILS * b.deviation);
  const width = (Math.min(1, b.mean + TAILS * b.deviation) - first) / SLICES;
  let [sum, below] = [0, betaCdf(first, b.alpha, b.beta)];
  for (let i = 0; i < SLICES; i++) {
    const upTo = betaCdf(first + (i + 1) * width, b.alpha, b.beta);
    const needed = dearer * (first + (i + 0.5) * width);
    sum += (upTo - below) * (needed >= 1 ? 0 : 1 - betaCdf(needed, a.alpha, a.beta));
    below = upTo;
  }
  return Math.min(1, sum);
}

/** What is known of a keyword's rate: a Beta distribution, pulled to the rate of its group. */
function rateOf({ clicks, conversions }: Contender, cvr: number) {
  const converted = Math.min(conversions ?? 0, clicks!);
  const [alpha, beta] = [converted + PULL * cvr, clicks! - converted + PULL * Math.max(0, 1 - cvr)];
  const all = alpha + beta;
  return {
    ...{ alpha, beta, mean: alpha / all },
    deviation: Math.sqrt((alpha * beta) / (all * all * (all + 1))),
  };
}
