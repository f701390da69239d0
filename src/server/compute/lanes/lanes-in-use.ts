import { group } from 'd3';
import type { MatchType, Place, Tier } from '@/core';
import type { LanePlan } from '@/contracts/lanes';
import type { StoredLanePlan } from '../../repositories/decisions/lane-plans';
import type { Group } from '../promotion/groups';
import { derivedFrom } from '../derived';
import { canServe } from '../serving';
import type { Snapshot } from '../snapshot';

/** A tier, and where it stands in the account. */
export type PlacedTier = Tier & {
  name: string;
  /** where its negatives go: its campaigns, or the ad group that is a seat */
  places: Place[];
  /** ids of all its ad groups that are not removed, and of those that can serve today */
  adGroups: string[];
  serving: string[];
};

/** A lane plan over an account: one that people keep, or the seats of a group (rules 10). */
export type LanesInUse = {
  /** the same for the same plan */
  key: string;
  name: string;
  by: 'entry terms' | 'match type';
  /** as it is kept */
  plan: LanePlan | null;
  tiers: PlacedTier[];
};

/** The lane plan that people keep. Campaigns that are gone are left out. */
export function lanesOfPlan(snapshot: Snapshot, { id, name, tiers }: StoredLanePlan): LanesInUse {
  const placed = tiers.map((tier, number): PlacedTier => {
    const campaigns = tier.campaigns.filter((one) => snapshot.campaign.has(one));
    const adGroups = [...snapshot.adGroup.values()]
      .filter(({ campaignId, status }) => status !== 'removed' && campaigns.includes(campaignId))
      .map((one) => one.id);
    return {
      ...{ id: String(number), name: tier.name, entryTerms: tier.entryTerms },
      places: campaigns.map((one) => ({ kind: 'campaign', id: one })),
      ...{ adGroups, serving: servingIn(snapshot, adGroups) },
    };
  });
  return {
    ...{ key: `plan ${id}`, name, by: 'entry terms', plan: { name, tiers } },
    tiers: placed,
  };
}

/** Of lanes by match type, the broad seat takes what no other takes. */
const SEATS = ['broad', 'phrase', 'exact'] as const satisfies MatchType[];

/**
 * The seats of a group as lanes: the keywords of a seat are its entry terms.
 * @returns null where the group has fewer than two seats that serve, or none but the first has a keyword
 */
export function lanesOfSeats(snapshot: Snapshot, { key, name, seats: of }: Group): LanesInUse | null {
  const seats = SEATS.flatMap((match) => {
    const seat = of[match];
    return seat?.state === 'serves' ? [{ match, adGroupId: seat.adGroupId, name: seat.adGroup }] : [];
  });
  if (seats.length < 2) return null;
  const byAdGroup = keywordsByAdGroup(snapshot);
  const tiers = seats.map(({ match, adGroupId, name: adGroup }): PlacedTier => {
    const keywords = (byAdGroup.get(adGroupId) ?? []).filter((keyword) => keyword.match === match);
    return {
      ...{ id: match, name: adGroup, entryTerms: match === 'broad' ? [] : keywords.map(({ text }) => text) },
      entryMatch: match === 'exact' ? 'exact' : 'phrase',
      ...{ places: [{ kind: 'adGroup', id: adGroupId }], adGroups: [adGroupId], serving: [adGroupId] },
    };
  });
  if (tiers.slice(1).every(({ entryTerms }) => entryTerms.length === 0)) return null;
  return {
    ...{ key: `seats ${key}`, name, by: 'match type', plan: null },
    tiers,
  };
}

const keywordsByAdGroup = derivedFrom(({ liveKeywords }: Snapshot) =>
  group(liveKeywords, ({ adGroupId }) => adGroupId),
);

const servingIn = (snapshot: Snapshot, adGroups: readonly string[]) =>
  adGroups.filter((id) => canServe(snapshot, { kind: 'adGroup', id }));
