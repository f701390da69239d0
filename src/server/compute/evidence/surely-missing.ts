import { bidThatPays, probabilityMissesTarget, smallestUnitOf } from '@/core';
import type { Beside } from '@/contracts/hand';
import { derivedByKey } from '../derived';
import { standingOf } from '../history/ad-group-rates';
import { allDaysOf } from '../history/all-days';
import { costliestOf, rowsOfTerm, type Snapshot } from '../snapshot';
import { figuresOfTerm, termSums } from '../term-sums';
import { kindAt } from '../window-columns';
import { groundOf, missOfTerms, SURE } from './evidence';
import { judgingOf } from './faults';
import { steeringKey, worthOfAdGroups, type Steering } from './row-targets';

/** A term that surely misses the target, and whether it is to blame or its ad group is (rules 7.13). */
export type Missing = { term: number; misses: number; beside: Beside | null };

/** The terms of a window that surely miss, costliest first. Product codes are among them. */
export const surelyMissing: (snapshot: Snapshot, steering: Steering & { currency: string }) => Missing[] =
  derivedByKey(
    (steering: Steering & { currency: string }) => steeringKey(steering),
    (snapshot: Snapshot, steering) => {
      const { terms } = snapshot;
      const sums = termSums(snapshot);
      const missing: (Missing & { cost: number })[] = [];
      for (let t = 0; t < terms.count; t++) {
        const kind = kindAt(terms, t);
        if (kind !== 'query' && kind !== 'code') continue;
        const figures = figuresOfTerm(sums, t);
        const misses = missOfTerms(snapshot, steering)(t);
        if (!(misses >= SURE)) continue;
        missing.push({
          ...{ term: t, misses, beside: besideOf(snapshot, steering, t) },
          cost: figures.costMicros ?? 0,
        });
      }
      return missing.sort((a, b) => b.cost - a.cost).map(({ cost: _, ...one }) => one);
    },
  );

/**
 * A term beside its ad groups (rules 7.13): what they would have brought in its place, how surely it is worse than they
 * are, and whether the ad group where it cost most misses as a whole.
 * @returns null where nothing converted in the account, or the term has no click
 */
export function besideOf(
  snapshot: Snapshot,
  steering: Steering & { currency: string },
  t: number,
): Beside | null {
  const judging = judgingOf(snapshot, steering);
  const { prior } = groundOf(snapshot);
  const at = allDaysOf(snapshot).indexOf[t]!;
  if (!judging || !prior || at < 0 || !(judging.texts.clicks[at]! > 0)) return null;
  const [clicks, conversions] = [judging.texts.clicks[at]!, judging.texts.conversions[at]!];
  const expected = judging.texts.expected[at]!;
  const breakEvenCvr = expected / clicks; // the rate of its neighbours in the place of the target's
  return {
    ...{ expected, worse: probabilityMissesTarget({ ...prior, clicks, conversions, breakEvenCvr }) },
    adGroup: adGroupBeside(snapshot, steering, t),
  };
}

function adGroupBeside(snapshot: Snapshot, steering: Steering & { currency: string }, t: number) {
  const { history, rows, served } = snapshot;
  const costliest = costliestOf(snapshot, rowsOfTerm(snapshot, t));
  const g = served.adGroupOf[costliest]!;
  const { id, campaignId } = served.adGroups[g]!;
  const worth = worthOfAdGroups(snapshot, steering, groundOf(snapshot).meanValueMicros)[g]!;
  const target = { by: 'CPA', micros: Number.isNaN(worth) ? null : worth } as const;
  const standing = standingOf(history, rows.adGroupId[costliest]!, target.micros);
  if (!standing) return null;
  const { clicks, conversions, rate, misses, prior } = standing;
  return {
    ...{ id, name: snapshot.adGroup.get(id)?.name ?? '' },
    campaign: snapshot.campaign.get(campaignId)?.name ?? '',
    ...{ clicks, conversions, rate, misses: Number.isNaN(misses) ? null : misses },
    paysMicros: bidThatPays({ ...prior, clicks, conversions }, target, smallestUnitOf(steering.currency)),
  };
}
