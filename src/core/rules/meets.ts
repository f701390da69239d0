import { breakEvenCvr, probabilityMissesTarget, type Prior, type Target } from '../figures';
import type { AgeCondition, Measure, SumCondition } from './rule';

/** Sums of a term over a look-back; NaN where nothing is known. */
export type Sums = Readonly<Record<Measure, number>>;

/** What a term is held against. */
export type Judge = {
  target: Target;
  /** what its ad groups pay as a whole, as a target; null where no rule asks, or nothing is known */
  own: Target | null;
  /** of the account's terms; null where there is too little to learn it from */
  prior: Prior | null;
  /** of a campaign, what it may cost a day, micro-units; null where it has no budget of its own */
  budgetMicros?: number | null;
  /** what a click of the account costs, micro-units, for a term whose clicks cost nothing that is known */
  cpcMicros: number | null;
};

/** Sums of fractions, such as conversions that several clicks share, are right to within this. */
const SLACK = 1e-9;

/**
 * Whether sums meet a condition. What is not known meets none; neither does anything meet a target that is not set. Without a
 * conversion, a cost is held against the target of one.
 * @param days of the look-back that the sums are of
 * @example meets({ of: 'clicks', is: 'at least', value: 15 }, { impressions: 90, clicks: 16, costMicros: 8, conversions: 0, valueMicros: 0 }, {}, 30) // true
 */
export function meets(condition: SumCondition, sums: Sums, judge: Judge, days: number): boolean {
  if (condition.of === 'target') return meetsTarget(condition, sums, judge.target);
  if (condition.of === 'ad groups') return judge.own !== null && meetsTarget(condition, sums, judge.own);
  if (condition.of === 'budget') return meetsBudget(condition, sums.costMicros / days, judge.budgetMicros);
  if (condition.of === 'evidence') return sureToMiss(sums, judge) >= condition.probability;
  const { of, is, value } = condition;
  return compares(sums[of], is, value);
}

function compares(figure: number, is: 'at least' | 'at most', value: number): boolean {
  const slack = SLACK * Math.max(1, Math.abs(value));
  return is === 'at least' ? figure >= value - slack : figure <= value + slack;
}

const meetsBudget = (
  { is, share }: Extract<SumCondition, { of: 'budget' }>,
  costADay: number,
  budgetMicros: number | null | undefined,
): boolean => (budgetMicros ?? 0) > 0 && compares(costADay / budgetMicros!, is, share);

/** @param age days since the term was seen first */
export const meetsAge = ({ is, days }: AgeCondition, age: number): boolean =>
  is === 'at least' ? age >= days : age <= days;

function meetsTarget(
  { is, times }: Extract<SumCondition, { of: 'target' | 'ad groups' }>,
  { costMicros, conversions, valueMicros }: Sums,
  target: Target,
): boolean {
  const may =
    target.by === 'CPA'
      ? (target.micros ?? NaN) * Math.max(1, conversions)
      : (target.fraction ?? NaN) * (valueMicros > 0 ? valueMicros : (target.meanValueMicros ?? NaN));
  return is === 'above' ? costMicros > times * may : costMicros < times * may;
}

/** NaN where nothing can be said. */
function sureToMiss({ clicks, conversions, costMicros }: Sums, { target, prior, cpcMicros }: Judge): number {
  const cpc = clicks > 0 && costMicros >= 0 ? costMicros / clicks : cpcMicros;
  const rate = breakEvenCvr(cpc, target);
  if (rate === null || prior === null || Number.isNaN(clicks) || Number.isNaN(conversions)) return NaN;
  const brought = { clicks: Math.max(0, clicks), conversions: Math.max(0, conversions) };
  return probabilityMissesTarget({ ...prior, breakEvenCvr: rate, ...brought });
}

/** What conversions of a term may have cost by its target, micro-units; 0 where none is set. */
export function worthOf(
  { target }: Judge,
  { conversions, valueMicros }: { conversions: number; valueMicros: number },
): number {
  const worth =
    target.by === 'CPA' ? (target.micros ?? 0) * conversions : (target.fraction ?? 0) * valueMicros;
  return worth || 0;
}
