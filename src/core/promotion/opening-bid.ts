import { ratios, type Figures } from '../figures';

/** What a conversion, or what it brings, may cost. */
export type PromotionTarget = { by: 'CPA'; micros: number } | { by: 'ACoS'; fraction: number };

type Brought = Pick<Figures, 'clicks' | 'costMicros' | 'conversions' | 'valueMicros'>;

/**
 * How far what a term brought lies over the target (rules 11): for ACoS in points (0.01 is one percentage point), for CPA as a
 * share of the target. Infinite where it cost something and brought nothing.
 * @returns below 0 within the target; null where it cost nothing, or what it brought is not known
 * @example overTarget({ clicks: 10, costMicros: 30_000_000, conversions: 1, valueMicros: null }, { by: 'CPA', micros: 20_000_000 }) // 0.5
 */
export function overTarget(brought: Brought, target: PromotionTarget): number | null {
  const { costMicros, conversions, valueMicros } = brought;
  const returned = target.by === 'CPA' ? conversions : valueMicros;
  if (costMicros === null || costMicros === 0 || returned === null) return null;
  if (returned === 0) return Infinity;
  return target.by === 'CPA'
    ? costMicros / returned / target.micros - 1
    : costMicros / returned - target.fraction;
}

/**
 * The bid with which a promoted keyword opens (rules 11): what a click of the term cost, less by as much as it is over the
 * target, rounded down.
 * @param target null: none is set, so the bid is what a click cost
 * @param unitMicros the currency's smallest unit
 * @returns micro-units, at least one unit; null without a click, or where the term is not judged by the target
 * @example openingBid({ clicks: 10, costMicros: 5_000_000, conversions: 1, valueMicros: null }, { by: 'CPA', micros: 4_000_000 }, 10_000) // 400_000
 */
export function openingBid(
  brought: Brought,
  target: PromotionTarget | null,
  unitMicros: number,
): number | null {
  const { cpcMicros, cpaMicros, acos } = ratios({ impressions: null, ...brought });
  const actual = target?.by === 'ACoS' ? acos : cpaMicros;
  if (cpcMicros === null || (target && (actual === null || actual === 0))) return null;
  const wanted = target?.by === 'ACoS' ? target.fraction : target?.micros;
  const bid = cpcMicros * (wanted === undefined ? 1 : Math.min(1, wanted / actual!));
  return Math.max(unitMicros, Math.floor(bid / unitMicros + 1e-9) * unitMicros);
}
