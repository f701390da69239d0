import type { Rule, Where } from '@/core';
import type { StoredRule } from '../../repositories/decisions/rules';
import type { Mirror } from '../../repositories/structure/structure';
import { derivedFrom } from '../derived';
import type { Standing } from '../snapshot';

/** A rule, and where the set that it is in looks at most; null: it is in none, or the set looks everywhere. */
export type RuleWithin = { rule: Rule; within: Where | null };

/** A rule as its set lets it look. */
export const withinSet = ({ rule, set }: Pick<StoredRule, 'rule' | 'set'>): RuleWithin => ({
  ...{ rule, within: set?.where ?? null },
});

/**
 * What a rule or its set names and is not there any more, in words; null where nothing is missing. Until it is there, the rule waits.
 */
export function missingOf({ rule: { where, then }, within }: RuleWithin, standing: Standing): string | null {
  const gone = missingPlace(where, standing) ?? (within && missingPlace(within, standing));
  if (gone !== null) return gone;
  const list = 'list' in then ? then.list : null;
  const isThere = list === null || standing.mirror.lists.some(({ id }) => id === list);
  return isThere ? null : 'a list that is gone';
}

function missingPlace(where: Where, { mirror: { campaigns }, ownTargets }: Standing): string | null {
  const live = campaigns.filter(({ status }) => status !== 'removed');
  const gone =
    sayGone(
      ['a campaign that is gone', 'campaigns that are gone'],
      where.campaigns,
      live.map(({ id }) => id),
    ) ??
    sayGone(
      ['a label that no campaign has', 'labels that no campaign has'],
      where.labels,
      live.flatMap(({ labels }) => labels),
    ) ??
    sayGone(
      ['a product group that is gone', 'product groups that are gone'],
      where.productGroups,
      ownTargets.productGroups.map(({ name }) => name),
    );
  return gone ?? (where.is === 'in' && namesNothing(where) ? 'campaigns: none is named' : null);
}

function sayGone(
  [one, several]: readonly [string, string],
  named: readonly string[] = [],
  there: readonly string[],
): string | null {
  const isThere = new Set(there);
  const gone = named.filter((each) => !isThere.has(each)).length;
  return gone === 0 ? null : gone === 1 ? one : `${gone} ${several}`;
}

const namesNothing = ({ campaigns, labels = [], productGroups = [] }: Where) =>
  campaigns.length + labels.length + productGroups.length === 0;

/** The campaign of each ad group, by their ids. */
export const campaignByAdGroup = derivedFrom(
  ({ mirror: { adGroups } }: Standing): ReadonlyMap<number, number> =>
    new Map(adGroups.map(({ id, campaignId }) => [Number(id), Number(campaignId)])),
);

/** Ids of the ad groups where a rule looks; null for all. */
export function adGroupsOf(
  { rule: { where }, within }: RuleWithin,
  standing: Standing,
): ReadonlySet<number> | null {
  const own = adGroupsIn(where, standing);
  const ofSet = within && adGroupsIn(within, standing);
  return own && ofSet ? new Set([...own].filter((id) => ofSet.has(id))) : (own ?? ofSet);
}

function adGroupsIn(where: Where, { mirror, ownTargets }: Standing): ReadonlySet<number> | null {
  if (where.is === 'everywhere') return null;
  const [campaigns, labels, groups] = [
    new Set(where.campaigns),
    new Set(where.labels),
    new Set(where.productGroups),
  ];
  const named = new Set(
    mirror.campaigns.flatMap((one) =>
      campaigns.has(one.id) || one.labels.some((label) => labels.has(label)) ? [one.id] : [],
    ),
  );
  const grouped = new Set(
    ownTargets.productGroups.flatMap(({ name, adGroupIds }) => (groups.has(name) ? adGroupIds : [])),
  );
  const isNamed = (one: Mirror['adGroups'][number]) => named.has(one.campaignId) || grouped.has(one.id);
  return new Set(
    mirror.adGroups.flatMap((one) => (isNamed(one) === (where.is === 'in') ? [Number(one.id)] : [])),
  );
}

/** Ids of the keywords whose terms a rule sees; null for all, and for those that nobody knows. */
export function keywordsIn({ servedBy = [] }: Where, { keywords }: Mirror): ReadonlySet<number> | null {
  if (servedBy.length === 0) return null;
  const matches = new Set<string>(servedBy);
  return new Set(keywords.flatMap(({ id, match }) => (matches.has(match) ? [Number(id)] : [])));
}
