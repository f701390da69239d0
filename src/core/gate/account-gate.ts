import { createNegativeIndex } from './negative-index';
import { isInForceIn, type AccountShape, type Place, type PlacedNegative } from './negative';

/** What stops a query in one ad group of a whole account; changes without compiling the rest again. */
export type AccountGate = {
  /**
   * Ids of the negatives in force in the ad group that match the query (2.4), in the order they were added.
   * @throws RangeError when the ad group is unknown
   */
  stoppers(query: string, adGroupId: string): string[];
  /** Ids of all negatives that match the query, in force or not. */
  matching(query: string): string[];
  /** Whether the negative is in force in the ad group (2.3). @throws RangeError when either is unknown */
  isInForce(negativeId: string, adGroupId: string): boolean;
  /** @throws RangeError when the id is taken */
  add(negative: PlacedNegative): void;
  /** @throws RangeError when the id is unknown */
  remove(negativeId: string): void;
  /** `campaignId` null hangs the list on the whole account. Hanging twice changes nothing. */
  hang(listId: string, campaignId: string | null): void;
  /** Takes a list down from a campaign, or (null) from the account. What does not hang stays as it is. */
  takeDown(listId: string, campaignId: string | null): void;
};

/**
 * Compiles an account: one index over all its negatives, which all ad groups share, and the question of force asked
 * only for those that match.
 * @example compileAccountGate(account).stoppers('free hive', 'g1') // ['n1']
 */
export function compileAccountGate(account: AccountShape): AccountGate {
  const adGroups = new Map(
    account.campaigns.flatMap((c) => c.adGroups.map((g) => [g.id, { id: g.id, campaignId: c.id }] as const)),
  );
  const hangings = new Map<string, Set<string | null>>();
  for (const list of account.lists) {
    hangings.set(list.id, new Set(list.hungOn === 'account' ? [null] : list.hungOn));
  }
  const index = createNegativeIndex(account.negatives);
  /** what stands at each index, and the index of each id */
  const filed: { id: string; place: Place }[] = [];
  const indexOf = new Map<string, number>();
  account.negatives.forEach((negative, at) => note(negative, at));

  function note({ id, place }: PlacedNegative, at: number) {
    if (indexOf.has(id)) throw new RangeError(`a negative's id must be new; got ${id}`);
    indexOf.set(id, at);
    filed[at] = { id, place };
  }

  function requireAdGroup(id: string): { id: string; campaignId: string } {
    const adGroup = adGroups.get(id);
    if (!adGroup) throw new RangeError(`an ad group must be of the account; got ${id}`);
    return adGroup;
  }

  function hangsOn(listId: string, campaignId: string): boolean {
    const hung = hangings.get(listId);
    return hung !== undefined && (hung.has(campaignId) || hung.has(null));
  }

  function require(id: string): number {
    const at = indexOf.get(id);
    if (at === undefined) throw new RangeError(`a negative must be of the account; got ${id}`);
    return at;
  }

  return {
    stoppers(query, adGroupId) {
      const adGroup = requireAdGroup(adGroupId);
      const found: string[] = [];
      for (const at of index.matching(query)) {
        const { id, place } = filed[at]!;
        if (isInForceIn(place, adGroup, hangsOn)) found.push(id);
      }
      return found;
    },
    matching: (query) => index.matching(query).map((at) => filed[at]!.id),
    isInForce: (id, adGroupId) => isInForceIn(filed[require(id)]!.place, requireAdGroup(adGroupId), hangsOn),
    add(negative) {
      if (indexOf.has(negative.id)) throw new RangeError(`a negative's id must be new; got ${negative.id}`);
      note(negative, index.add(negative));
    },
    remove(id) {
      index.remove(require(id));
      indexOf.delete(id);
    },
    hang(listId, campaignId) {
      const hung = hangings.get(listId);
      if (hung) hung.add(campaignId);
      else hangings.set(listId, new Set([campaignId]));
    },
    takeDown: (listId, campaignId) => void hangings.get(listId)?.delete(campaignId),
  };
}
