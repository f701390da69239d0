import { createNegativeIndex } from './negative-index';
import { placeKey, type AccountShape, type Place, type PlacedNegative } from '../negative';

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
 * Compiles an account: one index over all its negatives, which all ad groups share. Whether a negative is in force is
 * asked only of those that match.
 * @example compileAccountGate(account).stoppers('free hive', 'g1') // ['n1']
 */
export function compileAccountGate(account: AccountShape): AccountGate {
  /** Places as integers, for one comparison a negative. */
  const numbers = new Map<string, number>();
  const numberOf = (kind: Place['kind'], id: string | null) => {
    const key = placeKey({ kind, id });
    let number = numbers.get(key);
    if (number === undefined) numbers.set(key, (number = numbers.size));
    return number;
  };
  const wholeAccount = numberOf('account', null);
  const whereOf = (campaignId: string | null) =>
    campaignId === null ? wholeAccount : numberOf('campaign', campaignId);
  /** Where each list hangs, by its number: on campaigns or the whole account. Lists come early, so that it has no gaps. */
  const hangings: (Set<number> | undefined)[] = [];
  for (const { id } of account.lists) hangings[numberOf('list', id)] = new Set();
  for (const { id, hungOn } of account.lists)
    for (const campaign of hungOn === 'account' ? [null] : hungOn) hang(id, campaign);
  const adGroups = new Map<string, AdGroupNumbers>();
  for (const { id, adGroups: groups } of account.campaigns) {
    const campaign = numberOf('campaign', id);
    for (const group of groups) adGroups.set(group.id, { adGroup: numberOf('adGroup', group.id), campaign });
  }
  const index = createNegativeIndex(account.negatives);
  /** what stands at each index: its id and its place; and the index of each id */
  const ids: string[] = [];
  const places: number[] = [];
  const indexOf = new Map<string, number>();
  account.negatives.forEach((negative, at) => note(negative, at));

  function hang(listId: string, campaignId: string | null) {
    (hangings[numberOf('list', listId)] ??= new Set()).add(whereOf(campaignId));
  }

  function note({ id, place }: PlacedNegative, at: number) {
    if (indexOf.has(id)) throw new RangeError(`a negative's id must be new; got ${id}`);
    indexOf.set(id, at);
    ids[at] = id;
    places[at] = numberOf(place.kind, place.id);
  }

  function requireAdGroup(id: string): AdGroupNumbers {
    const adGroup = adGroups.get(id);
    if (!adGroup) throw new RangeError(`an ad group must be of the account; got ${id}`);
    return adGroup;
  }

  /** Rules 2.3, as isInForceIn says them. */
  function acts(at: number, { adGroup, campaign }: AdGroupNumbers): boolean {
    const place = places[at]!;
    if (place === campaign || place === adGroup || place === wholeAccount) return true;
    const hung = hangings[place];
    return hung !== undefined && (hung.has(campaign) || hung.has(wholeAccount));
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
        if (acts(at, adGroup)) found.push(ids[at]!);
      }
      return found;
    },
    matching: (query) => index.matching(query).map((at) => ids[at]!),
    isInForce: (id, adGroupId) => acts(require(id), requireAdGroup(adGroupId)),
    add(negative) {
      if (indexOf.has(negative.id)) throw new RangeError(`a negative's id must be new; got ${negative.id}`);
      note(negative, index.add(negative));
    },
    remove(id) {
      index.remove(require(id));
      indexOf.delete(id);
    },
    hang,
    takeDown(listId, campaignId) {
      hangings[numberOf('list', listId)]?.delete(whereOf(campaignId));
    },
  };
}

type AdGroupNumbers = { adGroup: number; campaign: number };
