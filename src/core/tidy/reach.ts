import { memoised } from '../memoised';
import { isInForceIn, placeKey, type AccountShape, type Place } from '../gate';

/** In which ad groups a negative at a place is in force (rules 2.3), and which places reach at least as far. */
export type Reach = {
  /** Ids of the ad groups, in the account's order; none where a list hangs nowhere or the place is unknown. */
  adGroupsOf(place: Place): string[];
  /** Whether whatever is in force by `inner` would be by `outer` too. A place without reach is within itself only. */
  contains(outer: Place, inner: Place): boolean;
  /** Whether that holds whatever ad groups are added (rules 3, lasting). */
  containsForGood(outer: Place, inner: Place): boolean;
};

/** @example compileReach(account).contains({ kind: 'campaign', id: 'c1' }, { kind: 'adGroup', id: 'g1' }) // true */
export function compileReach({ campaigns, lists }: Pick<AccountShape, 'campaigns' | 'lists'>): Reach {
  const adGroups = campaigns.flatMap((campaign) =>
    campaign.adGroups.map((group) => ({ id: group.id, campaignId: campaign.id })),
  );
  const hungOn = new Map(lists.map((list) => [list.id, list.hungOn]));
  const campaignOf = new Map(adGroups.map((group) => [group.id, group.campaignId]));

  const hangsOn = (listId: string, campaignId: string) => {
    const hung = hungOn.get(listId) ?? [];
    return hung === 'account' || hung.includes(campaignId);
  };

  const reaches = memoised(
    placeKey,
    (place) => new Set(adGroups.filter((g) => isInForceIn(place, g, hangsOn)).map((g) => g.id)),
  );

  const pairs = new Map<string, boolean>();
  function contains(outer: Place, inner: Place): boolean {
    const [outerKey, innerKey] = [placeKey(outer), placeKey(inner)];
    if (outerKey === innerKey) return true;
    const pair = `${outerKey}|${innerKey}`;
    let known = pairs.get(pair);
    if (known === undefined) {
      const [wide, narrow] = [reaches(outer), reaches(inner)];
      known = narrow.size > 0 && narrow.size <= wide.size && [...narrow].every((id) => wide.has(id));
      pairs.set(pair, known);
    }
    return known;
  }

  function containsForGood(outer: Place, inner: Place): boolean {
    if (placeKey(outer) === placeKey(inner) || outer.kind === 'account') return true;
    const hung = outer.kind === 'list' ? (hungOn.get(outer.id ?? '') ?? []) : [];
    if (hung === 'account') return true;
    const campaignId =
      inner.kind === 'campaign'
        ? inner.id
        : inner.kind === 'adGroup'
          ? campaignOf.get(inner.id ?? '')
          : undefined;
    if (campaignId === undefined || campaignId === null) return false;
    return outer.kind === 'campaign' ? outer.id === campaignId : hung.includes(campaignId);
  }

  return { adGroupsOf: (place) => [...reaches(place)], contains, containsForGood };
}
