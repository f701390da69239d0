import { breakEvenCvr, type Target } from '@/core';
import type { Account } from '../../repositories/account/accounts';
import type { OwnTarget } from '../../repositories/account/own-targets';
import type { Snapshot } from '../snapshot';
import { derivedByKey } from '../derived';
import { figureAt, COLUMN } from '../figure-columns';

/** What an account, or a term of it, steers by. */
export type Steering = Pick<Account, 'steersBy' | 'targetMicros' | 'targetAcos'>;

/** One text for what is steered by. */
export const steeringKey = ({ steersBy, targetMicros, targetAcos }: Steering) =>
  `${steersBy} ${targetMicros} ${targetAcos}`;

/** Whether a campaign or a product group has a target of its own. */
export function hasOwnTargets({ ownTargets }: Snapshot): boolean {
  return ownTargets.campaigns.length + ownTargets.productGroups.length > 0;
}

/**
 * The target of each ad group of the window: that of its product group, else of its campaign, else of the account
 * (rules 7.3). Micro-units or fractions, as the account steers; NaN where there is none.
 */
const targetsOfAdGroups = derivedByKey(
  steeringKey,
  ({ served, ownTargets }: Snapshot, steering: Steering): Float64Array =>
    targetsOf(served.adGroups, ownTargets, steering),
);

/** The same of any ad groups. */
export function targetsOf(
  adGroups: readonly { id: string; campaignId: string }[],
  ownTargets: Snapshot['ownTargets'],
  steering: Steering,
): Float64Array {
  const own = (one: OwnTarget | undefined) =>
    (steering.steersBy === 'CPA' ? one?.targetMicros : one?.targetAcos) ?? undefined;
  const ofCampaign = new Map(ownTargets.campaigns.map((one) => [one.campaignId, own(one)]));
  const ofGroup = new Map(
    ownTargets.productGroups.flatMap((one) => one.adGroupIds.map((id) => [id, own(one)] as const)),
  );
  const ofAccount = own(steering) ?? NaN;
  return Float64Array.from(
    adGroups,
    ({ id, campaignId }) => ofGroup.get(id) ?? ofCampaign.get(campaignId) ?? ofAccount,
  );
}

/**
 * What a conversion is worth at the target of each ad group of the window, micro-units; NaN where there is no target.
 * @param meanValueMicros of a conversion, where the account steers by ACoS
 */
export function worthOfAdGroups(
  snapshot: Snapshot,
  steering: Steering,
  meanValueMicros: number | null,
): Float64Array {
  return targetsOfAdGroups(snapshot, steering).map((target) =>
    steering.steersBy === 'CPA' ? target : target * (meanValueMicros ?? NaN),
  );
}

/**
 * The break-even rate of a term: the mean over its rows, weighed by clicks (unweighed where the term has no click).
 * Rows without a target are left out.
 * @returns null where no row has a target
 */
export function breakEvenOfTerm(
  snapshot: Snapshot,
  steering: Steering,
  t: number,
  cpcMicros: number | null,
  meanValueMicros: number | null,
): number | null {
  return meanOfRows(snapshot, steering, t, (target) =>
    breakEvenCvr(cpcMicros, asTarget(steering, target, meanValueMicros)),
  );
}

/** What a term is steered by: the target at which its rows break even together. */
export function steeringOfTerm(snapshot: Snapshot, steering: Steering, t: number): Steering {
  if (!hasOwnTargets(snapshot)) return steering;
  const inverse = meanOfRows(snapshot, steering, t, (target) => 1 / target);
  const target = inverse === null ? null : 1 / inverse;
  return {
    ...steering,
    ...(steering.steersBy === 'CPA' ? { targetMicros: target } : { targetAcos: target }),
  };
}

function asTarget({ steersBy }: Steering, target: number, meanValueMicros: number | null): Target {
  return steersBy === 'CPA'
    ? { by: 'CPA', micros: target }
    : { by: 'ACoS', fraction: target, meanValueMicros };
}

function meanOfRows(
  snapshot: Snapshot,
  steering: Steering,
  t: number,
  valueOf: (target: number) => number | null,
): number | null {
  const { rows, served } = snapshot;
  const targets = targetsOfAdGroups(snapshot, steering);
  let [sum, weight, plain, count] = [0, 0, 0, 0];
  for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) {
    const target = targets[served.adGroupOf[r]!]!;
    const value = target > 0 ? valueOf(target) : null;
    if (value === null) continue;
    const clicks = figureAt(rows.figures, r, COLUMN.clicks) || 0;
    sum += clicks * value;
    weight += clicks;
    plain += value;
    count += 1;
  }
  if (weight > 0) return sum / weight;
  return count > 0 ? plain / count : null;
}
