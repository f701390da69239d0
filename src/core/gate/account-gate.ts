import { words } from '../text';
import { matchWords } from './match';
import type { AccountShape, MatchType, PlacedNegative, Place } from './negative';

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

type Entry = { id: string; order: number; match: MatchType; words: readonly string[]; place: Place };

/**
 * Compiles an account: one index over all its negatives, in which each stands under its rarest word, and the
 * question of force asked only for those that match.
 * @example compileAccountGate({ campaigns, lists, negatives }).stoppers('free hive', 'ag-1') // ['n-4']
 */
export function compileAccountGate(account: AccountShape): AccountGate {
  const campaignOf = new Map(account.campaigns.flatMap((c) => c.adGroups.map((g) => [g.id, c.id] as const)));
  const hangings = new Map<string, Set<string | null>>();
  for (const list of account.lists) {
    hangings.set(list.id, new Set(list.hungOn === 'account' ? [null] : list.hungOn));
  }
  const entries = new Map<string, Entry>();
  const buckets = new Map<string, Set<Entry>>();
  const uses = new Map<string, number>();
  let order = 0;

  function inForce({ place }: Entry, adGroupId: string): boolean {
    const campaignId = campaignOf.get(adGroupId);
    if (campaignId === undefined)
      throw new RangeError(`an ad group must be of the account; got ${adGroupId}`);
    switch (place.kind) {
      case 'account':
        return true;
      case 'campaign':
        return place.id === campaignId;
      case 'adGroup':
        return place.id === adGroupId;
      case 'list': {
        const hung = hangings.get(place.id ?? '');
        return hung !== undefined && (hung.has(campaignId) || hung.has(null));
      }
    }
  }

  function matchingEntries(query: string): Entry[] {
    const asked = words(query);
    const found: Entry[] = [];
    for (const word of new Set(asked)) {
      for (const entry of buckets.get(word) ?? []) {
        if (matchWords(entry.match, entry.words, asked)) found.push(entry);
      }
    }
    return found.sort((a, b) => a.order - b.order);
  }

  const rarestOf = (of: readonly string[]) =>
    of.reduce((best, word) => ((uses.get(word) ?? 0) < (uses.get(best) ?? 0) ? word : best), of[0]!);

  function file(entry: Entry) {
    if (entry.words.length === 0) return;
    const rarest = rarestOf(entry.words);
    let bucket = buckets.get(rarest);
    if (!bucket) buckets.set(rarest, (bucket = new Set()));
    bucket.add(entry);
  }

  function enter({ id, text, match, place }: PlacedNegative): Entry {
    if (entries.has(id)) throw new RangeError(`a negative's id must be new; got ${id}`);
    const entry = { id, order: order++, match, words: words(text), place };
    entries.set(id, entry);
    for (const word of new Set(entry.words)) uses.set(word, (uses.get(word) ?? 0) + 1);
    return entry;
  }

  function require(id: string): Entry {
    const entry = entries.get(id);
    if (!entry) throw new RangeError(`a negative must be of the account; got ${id}`);
    return entry;
  }

  account.negatives.map(enter).forEach(file); // all uses are counted before the first is filed

  return {
    stoppers: (query, adGroupId) =>
      matchingEntries(query)
        .filter((e) => inForce(e, adGroupId))
        .map((e) => e.id),
    matching: (query) => matchingEntries(query).map((e) => e.id),
    isInForce: (id, adGroupId) => inForce(require(id), adGroupId),
    add: (negative) => file(enter(negative)),
    remove(id) {
      const entry = require(id);
      entries.delete(id);
      for (const word of new Set(entry.words)) {
        uses.set(word, uses.get(word)! - 1);
        buckets.get(word)?.delete(entry);
      }
    },
    hang(listId, campaignId) {
      const hung = hangings.get(listId);
      if (hung) hung.add(campaignId);
      else hangings.set(listId, new Set([campaignId]));
    },
    takeDown: (listId, campaignId) => void hangings.get(listId)?.delete(campaignId),
  };
}
