import { OFFERED_FROM } from '../mining';
import type { Condition, Rule } from './rule';

/** A rule with another threshold. */
export type Neighbour = { rule: Rule; condition: Condition; isOwn: boolean };

/** Per cent of sureness that are near each other; money and counts go up and down by a third. */
const SURENESS = [0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.99];

/**
 * The rule between two neighbours, the looser one first: the same rule with its first threshold of "at least" lowered and raised.
 * @returns the rule alone where it has no such threshold
 * @example neighboursOf(fifteenClicks).map(({ condition }) => condition.value) // [10, 15, 20]
 */
export function neighboursOf(rule: Rule): Neighbour[] {
  const at = rule.when.findIndex((one) => 'is' in one && (one.is === 'at least' || one.is === 'above'));
  const own = rule.when[at];
  if (own === undefined) return rule.when.slice(0, 1).map((condition) => ({ rule, condition, isOwn: true }));
  const near = [lower(own), own, raise(own)];
  return near
    .filter((one) => one !== null)
    .map((condition) => ({
      ...{ rule: { ...rule, when: rule.when.with(at, condition) }, condition, isOwn: condition === own },
    }));
}

const lower = (one: Condition): Condition | null => shifted(one, -1);
const raise = (one: Condition): Condition | null => shifted(one, 1);

/** The threshold a step down or up; null where there is none, or it would be the same. */
function shifted(one: Condition, sign: -1 | 1): Condition | null {
  if (one.of === 'words' || one.of === 'kind') return null;
  if (one.of === 'age') {
    const days = one.days + sign * Math.max(1, Math.round(one.days / 3));
    return days > 0 ? { ...one, days } : null;
  }
  if (one.of === 'budget') {
    const share = rounded(one.share + sign / 10);
    return share > 0 ? { ...one, share } : null;
  }
  if (one.of === 'target' || one.of === 'ad groups')
    return { ...one, times: rounded(one.times * (1 + sign / 4)) };
  if (one.of === 'evidence' || one.of === 'fault') {
    const { probability } = one;
    const next =
      sign < 0
        ? SURENESS.findLast((sure) => sure < probability)
        : SURENESS.find((sure) => sure > probability);
    const isTooLow = one.of === 'fault' && next !== undefined && next < OFFERED_FROM;
    return next === undefined || isTooLow ? null : { ...one, probability: next };
  }
  const value = one.value + sign * Math.max(1, rounded(one.value / 3));
  return value > 0 ? { ...one, value } : null;
}

/** To two digits that count. */
const rounded = (value: number) => Number(value.toPrecision(2));
