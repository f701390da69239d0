import { group } from 'd3-array';
import { MATCH_TYPES, proposeSeats, type Change, type MatchType, type PromotionTarget } from '@/core';
import type { SeatsByName } from '@/contracts/account';
import type { OwnTarget } from '../../repositories/account/own-targets';
import type { AdGroup } from '../../repositories/structure/structure';
import { derivedFrom } from '../derived';
import type { Steering } from '../evidence/row-targets';
import { canServe } from '../serving';
import type { Snapshot } from '../snapshot';

/** The ad group that holds a product group's keywords of a match type. */
export type Seat = {
  /** ours; of one that waits in the tray, `newAdGroupId` */
  adGroupId: string;
  campaign: string;
  adGroup: string;
  /** a person has chosen it; else it is proposed by its name or content (rules 11.1) */
  isChosen: boolean;
  state: 'serves' | 'serves nothing' | 'in the tray';
};

/** Ad groups that sell the same: a product group, or a campaign's ad groups that are in none. */
export type Group = {
  /** the same for the same group */
  key: string;
  name: string;
  /** it is a product group of the Account screen */
  isOwn: boolean;
  /** all that are not removed; a seat that a person chose among them */
  adGroupIds: string[];
  target: PromotionTarget | null;
  seats: Record<MatchType, Seat | null>;
  /** chosen once, and not there any more */
  gone: { match: MatchType; campaign: string; adGroup: string }[];
};

type Named = { campaign: string; adGroup: string };

/** The id of an ad group that waits in the tray. @example newAdGroupId({ campaign: 'Hives', adGroup: 'exact' }) // 'new:["Hives","exact"]' */
export const newAdGroupId = ({ campaign, adGroup }: Named) => `new:${JSON.stringify([campaign, adGroup])}`;

/** The names by which an ad group that waits in the tray is known. @example namesOfNew('new:["Hives","exact"]').adGroup // 'exact' */
export function namesOfNew(id: string): Named {
  const [campaign, adGroup] = JSON.parse(id.slice('new:'.length)) as [string, string];
  return { campaign, adGroup };
}

/** Whether an id names an ad group that waits in the tray. */
export const isNewAdGroup = (id: string) => id.startsWith('new:');

/**
 * The groups of an account in which a search term can be promoted, with their seats (rules 11.1).
 * @param laid what the tray, and what was sent, would make
 */
export function groupsOf(snapshot: Snapshot, laid: readonly Change[], steering: Steering): Group[] {
  const standing = [...snapshot.adGroup.values()].filter(({ status }) => status !== 'removed');
  const made = newAdGroupsIn(snapshot, laid);
  const own = snapshot.ownTargets.productGroups.map(({ name, adGroupIds, seats, ...target }): Group => {
    const chosen = chosenSeats(snapshot, seats, made);
    const isMember = new Set([...adGroupIds, ...Object.values(chosen).map(({ adGroupId }) => adGroupId)]);
    const members = standing.filter(({ id }) => isMember.has(id));
    return {
      ...{ key: `group ${name}`, name, isOwn: true, adGroupIds: members.map(({ id }) => id) },
      target: targetOfGroup(snapshot, steering, target, members),
      // What is one seat is not proposed as another.
      seats: {
        ...proposedSeats(
          snapshot,
          members.filter(({ id }) => !Object.values(chosen).some(({ adGroupId }) => adGroupId === id)),
        ),
        ...chosen,
      },
      gone: MATCH_TYPES.flatMap((match) =>
        seats[match] && !chosen[match] ? [{ match, ...seats[match] }] : [],
      ),
    };
  });
  const taken = new Set(own.flatMap(({ adGroupIds }) => adGroupIds));
  const free = group(
    standing.filter(({ id }) => !taken.has(id)),
    ({ campaignId }) => campaignId,
  );
  const ofCampaigns = [...free].flatMap(([campaignId, members]): Group[] => {
    const campaign = snapshot.campaign.get(campaignId);
    if (!campaign || campaign.status === 'removed') return [];
    return [
      {
        ...{ key: `campaign ${campaignId}`, name: campaign.name, isOwn: false },
        adGroupIds: members.map(({ id }) => id),
        target: targetOfGroup(snapshot, steering, undefined, members),
        // They may sell anything: what an ad group holds says nothing of the others.
        seats: proposedSeats(snapshot, members, { byName: true }),
        gone: [],
      },
    ];
  });
  return [...own, ...ofCampaigns];
}

/** Ad groups that are not removed, by the names of their campaigns and their own. */
export const adGroupIds = derivedFrom(
  ({ mirror, campaign }: Snapshot): ReadonlyMap<string, string> =>
    new Map(
      mirror.adGroups
        .filter(({ status }) => status !== 'removed')
        .map(({ id, name, campaignId }) => [
          newAdGroupId({ campaign: campaign.get(campaignId)?.name ?? '', adGroup: name }),
          id,
        ]),
    ),
);

/** Ids of the ad groups that the tray, or what was sent, makes and that are not there yet. */
export function newAdGroupsIn(snapshot: Snapshot, laid: readonly Change[]): ReadonlySet<string> {
  const made = new Set<string>();
  for (const change of laid) {
    if (change.kind !== 'add ad group' && change.kind !== 'remove ad group') continue;
    const id = newAdGroupId({ campaign: change.campaign, adGroup: change.name });
    if (change.kind === 'add ad group' && !adGroupIds(snapshot).has(id)) made.add(id);
    else made.delete(id);
  }
  return made;
}

type SomeSeats = Partial<Record<MatchType, Seat>>;

/** The seats that a person has chosen, and that are there or will be. */
function chosenSeats(snapshot: Snapshot, seats: SeatsByName, made: ReadonlySet<string>): SomeSeats {
  const chosen: SomeSeats = {};
  for (const match of MATCH_TYPES) {
    const named = seats[match];
    if (!named) continue;
    const name = newAdGroupId(named);
    const adGroupId = adGroupIds(snapshot).get(name) ?? (made.has(name) ? name : undefined);
    if (adGroupId === undefined) continue;
    chosen[match] = { adGroupId, ...named, isChosen: true, state: stateOf(snapshot, adGroupId) };
  }
  return chosen;
}

function proposedSeats(
  snapshot: Snapshot,
  members: readonly AdGroup[],
  { byName = false } = {},
): Group['seats'] {
  const keywords = keywordsByAdGroup(snapshot);
  const campaignOf = ({ campaignId }: AdGroup) => snapshot.campaign.get(campaignId)?.name ?? '';
  const proposed = proposeSeats(
    members
      .filter(({ id }) => stateOf(snapshot, id) === 'serves')
      .map((one) => ({
        ...{
          id: one.id,
          name: one.name,
          campaign: campaignOf(one),
          keywords: (byName ? undefined : keywords.get(one.id)) ?? [],
        },
      })),
  );
  const seat = (match: MatchType): Seat | null => {
    const one = members.find(({ id }) => id === proposed[match]);
    if (!one) return null;
    const names = { campaign: campaignOf(one), adGroup: one.name };
    return { adGroupId: one.id, ...names, isChosen: false, state: 'serves' };
  };
  return { exact: seat('exact'), phrase: seat('phrase'), broad: seat('broad') };
}

const keywordsByAdGroup = derivedFrom(({ liveKeywords }: Snapshot) =>
  group(liveKeywords, ({ adGroup }) => adGroup.id),
);

function stateOf(snapshot: Snapshot, adGroupId: string): Seat['state'] {
  if (isNewAdGroup(adGroupId)) return 'in the tray';
  return canServe(snapshot, { kind: 'adGroup', id: adGroupId }) ? 'serves' : 'serves nothing';
}

/** Its own, else that of the campaign of all its ad groups, else the account's (rules 7.3); null where none is set. */
function targetOfGroup(
  { ownTargets }: Snapshot,
  steering: Steering,
  own: OwnTarget | undefined,
  members: readonly AdGroup[],
): PromotionTarget | null {
  const [campaignId, ...others] = new Set(members.map((one) => one.campaignId));
  const ofCampaign = ownTargets.campaigns.find((one) => others.length === 0 && one.campaignId === campaignId);
  const targets = [own, ofCampaign, steering];
  if (steering.steersBy === 'CPA') {
    const micros = targets.find((one) => one && one.targetMicros !== null)?.targetMicros ?? null;
    return micros === null ? null : { by: 'CPA', micros };
  }
  const fraction = targets.find((one) => one && one.targetAcos !== null)?.targetAcos ?? null;
  return fraction === null ? null : { by: 'ACoS', fraction };
}
