import {
  compilePromotions,
  noFigures,
  normalise,
  overTarget,
  type AccountShape,
  type Change,
  type Figures,
  type MatchType,
  type PlacedNegative,
  type PromotionPlan,
  type PromotionPlanner,
} from '@/core';
import { derivedFrom } from '../../compute/derived';
import {
  adGroupIds,
  groupsOf,
  namesOfNew,
  newAdGroupId,
  newAdGroupsIn,
  type Group,
} from '../../compute/promotion/groups';
import { canServe, isServing } from '../../compute/serving';
import { addRow } from '../../compute/window-columns';
import type { Open } from '../open-workbench';

/** An account as the tray leaves it, ready for plans. */
export type Planning = {
  groups: readonly Group[];
  group: ReadonlyMap<string, Group>;
  /** of an ad group, by its id */
  groupOf: ReadonlyMap<string, Group>;
  planner: PromotionPlanner;
  /** in force as the tray leaves the account, by the ids that the planner names */
  negatives: ReadonlyMap<string, PlacedNegative>;
  /** ad groups that serve nothing, or not yet */
  idle: ReadonlySet<string>;
  isExactIn(group: Group, text: string): boolean;
};

/** The groups and the planner of an account, made once for a state of the tray. */
export const planningOf = derivedFrom((open: Open): Planning => {
  const { snapshot, laid, account } = open;
  const groups = groupsOf(snapshot, laid, account);
  const keywords = keywordsIn(open);
  const shape = withNewAdGroups(open);
  const exact = new Set(
    keywords.flatMap(({ text, match, adGroupId }) =>
      match === 'exact' ? [`${adGroupId} ${normalise(text)}`] : [],
    ),
  );
  const idle = new Set(
    shape.campaigns
      .flatMap(({ adGroups }) => adGroups.map(({ id }) => id))
      .filter((id) => !canServe(snapshot, { kind: 'adGroup', id })),
  );
  return {
    ...{ groups, group: new Map(groups.map((one) => [one.key, one])), idle },
    groupOf: new Map(groups.flatMap((one) => one.adGroupIds.map((id) => [id, one]))),
    planner: compilePromotions(shape, keywords),
    negatives: new Map(shape.negatives.map((one) => [one.id, one])),
    isExactIn: ({ adGroupIds, seats }, text) =>
      [...adGroupIds, seats.exact?.adGroupId].some((id) => exact.has(`${id} ${text}`)),
  };
});

type Keyword = { id: string; text: string; match: MatchType; adGroupId: string };

/** Live keywords, and those that the tray would make or run. */
function keywordsIn({ snapshot, laid }: Open): Keyword[] {
  const turned = new Map<string, boolean>();
  for (const change of laid)
    if (change.kind === 'pause keyword' || change.kind === 'run keyword')
      turned.set(change.keywordId, change.kind === 'run keyword');
  const live = snapshot.liveKeywords.filter(({ id }) => turned.get(id) !== false);
  const runAgain = [...turned].flatMap(([id, runs]): Keyword[] => {
    const keyword = snapshot.keyword.get(id);
    const isOf = keyword && keyword.match !== 'automatic' && keyword.match !== 'unknown';
    return runs && isOf && !snapshot.liveKeyword.has(id)
      ? [{ ...keyword, match: keyword.match as MatchType }]
      : [];
  });
  return [...live, ...runAgain, ...madeKeywords(snapshot, laid)].map(({ id, text, match, adGroupId }) => ({
    ...{ id, text, match, adGroupId },
  }));
}

function madeKeywords(snapshot: Open['snapshot'], laid: readonly Change[]): Keyword[] {
  const idOf = adGroupIds(snapshot);
  const made = new Map<string, Keyword>();
  for (const change of laid) {
    if (change.kind !== 'add keyword' && change.kind !== 'remove keyword') continue;
    const name = newAdGroupId(change);
    const adGroupId = idOf.get(name) ?? name;
    const id = `${adGroupId} ${change.match} ${change.text}`;
    if (change.kind === 'add keyword')
      made.set(id, { id, text: change.text, match: change.match, adGroupId });
    else made.delete(id);
  }
  return [...made.values()];
}

/** Keywords by where they stand, their match type and their text; of twins one that is not removed. */
export const keywordsByName = derivedFrom(
  ({ mirror }: Open['snapshot']): ReadonlyMap<string, { id: string; status: string }> =>
    new Map(
      mirror.keywords
        .filter(({ status }) => status !== 'removed')
        .map((one) => [keywordName(one.adGroupId, one.match, one.text), one]),
    ),
);

/** @example keywordName('7', 'exact', 'Bee Hive') // '7 exact bee hive' */
export const keywordName = (adGroupId: string, match: string, text: string) =>
  `${adGroupId} ${match} ${normalise(text)}`;

/** The account as the tray leaves it, with the ad groups that it makes. */
function withNewAdGroups({ draft, snapshot, laid }: Open): AccountShape {
  const shape = draft.gate.shape();
  const byName = new Map(snapshot.mirror.campaigns.map(({ id, name }) => [name, id]));
  const more = new Map<string, { id: string }[]>();
  for (const id of newAdGroupsIn(snapshot, laid)) {
    const { campaign } = namesOfNew(id);
    const campaignId = byName.get(campaign) ?? `new:${campaign}`;
    more.set(campaignId, [...(more.get(campaignId) ?? []), { id }]);
  }
  const campaigns = shape.campaigns.map((one) => ({
    ...one,
    adGroups: [...one.adGroups, ...(more.get(one.id) ?? [])],
  }));
  const isKnown = new Set(campaigns.map(({ id }) => id));
  for (const [id, adGroups] of more) if (!isKnown.has(id)) campaigns.push({ id, adGroups });
  return { ...shape, campaigns };
}

/** What a term brought in each ad group of a list of its rows, the one where it cost most first. */
export function byAdGroup(
  { snapshot }: Open,
  rows: readonly number[],
): { adGroup: number; figures: Figures }[] {
  const sums = new Map<number, Figures>();
  for (const r of rows) {
    const adGroup = snapshot.served.adGroupOf[r]!;
    let sum = sums.get(adGroup);
    if (!sum) sums.set(adGroup, (sum = noFigures()));
    addRow(sum, snapshot.rows, r);
  }
  return [...sums]
    .map(([adGroup, figures]) => ({ adGroup, figures }))
    .sort((a, b) => (b.figures.costMicros ?? 0) - (a.figures.costMicros ?? 0));
}

/**
 * The plan of a term in a group (rules 11.2).
 * @param rows of the term in the group
 * @param isOut tells of match types whose keywords are not wanted
 */
export function planTerm(
  open: Open,
  group: Group,
  text: string,
  rows: readonly number[],
  isOut: (match: MatchType) => boolean = () => false,
): PromotionPlan {
  const { planner, idle } = planningOf(open);
  const seat = (match: MatchType) => (isOut(match) ? null : (group.seats[match]?.adGroupId ?? null));
  const seats = { exact: seat('exact'), phrase: seat('phrase'), broad: seat('broad') };
  return planner.plan({ text, seats, missing: missingSources(open, group, rows), idle });
}

/** Ad groups that serve the term and are over its target by more than is tolerated (rules 11.4). */
function missingSources(open: Open, { target }: Group, rows: readonly number[]): string[] {
  if (target === null) return [];
  const { snapshot, account } = open;
  return byAdGroup(open, rows).flatMap(({ adGroup, figures }) => {
    const over = overTarget(figures, target);
    const isMissing = over !== null && over > account.promotionTolerance && isServing(snapshot, adGroup);
    return isMissing ? [snapshot.served.adGroups[adGroup]!.id] : [];
  });
}
