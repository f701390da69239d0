export type MatchType = 'broad' | 'phrase' | 'exact';

export const MATCH_TYPES: readonly MatchType[] = ['broad', 'phrase', 'exact'];

/** What a negative (or a keyword) says, apart from where it sits. */
export type NegativeText = { text: string; match: MatchType };

/** Where a negative sits (rules 2.3); the id is null for the account. */
export type Place = { kind: 'account' | 'campaign' | 'adGroup' | 'list'; id: string | null };

export type PlacedNegative = NegativeText & {
  id: string;
  place: Place;
  /** ISO day or time; missing or '' where nobody says since when it stands */
  createdAt?: string;
};

/** The parts of an account that decide what is in force where. */
export type AccountShape = {
  campaigns: readonly { id: string; adGroups: readonly { id: string }[] }[];
  lists: readonly {
    id: string;
    hungOn: readonly string[] | 'account';
    /** campaigns on which it hangs besides the whole account */
    besides?: readonly string[];
    placements?: readonly string[];
    /** the first day on which it hung on each campaign ('account' is the whole account), where that is known */
    since?: ReadonlyMap<string, string>;
  }[];
  negatives: readonly PlacedNegative[];
  /** product codes that are excluded, and where (rules 2.5) */
  exclusions?: readonly { code: string; place: Place }[];
};

/** One string for one place, fit as a key. @example placeKey({ kind: 'list', id: '7' }) // 'list 7' */
export function placeKey(place: Place): string {
  return place.id === null ? place.kind : `${place.kind} ${place.id}`;
}

/**
 * Whether what sits at a place is in force in an ad group (rules 2.3).
 * @param hangsOn whether a list hangs on a campaign or on the whole account
 * @example isInForceIn({ kind: 'campaign', id: 'c1' }, { id: 'g1', campaignId: 'c1' }, () => false) // true
 */
export function isInForceIn(
  place: Place,
  adGroup: { id: string; campaignId: string },
  hangsOn: (listId: string, campaignId: string) => boolean,
): boolean {
  switch (place.kind) {
    case 'account':
      return true;
    case 'campaign':
      return place.id === adGroup.campaignId;
    case 'adGroup':
      return place.id === adGroup.id;
    case 'list':
      return place.id !== null && hangsOn(place.id, adGroup.campaignId);
  }
}
