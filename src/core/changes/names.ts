import type { Place } from '../gate';

/** Names of the elements that changes refer to; undefined where an element is unknown. */
export type Names = {
  campaign(id: string): string | undefined;
  adGroup(id: string): string | undefined;
  list(id: string): string | undefined;
  /** text and match type, as “bee hive” (broad) */
  keyword?(id: string): string | undefined;
  /** of the account, for amounts */
  currency: string;
};

/** What is said of an element whose name nobody knows any more. */
export const GONE = '(gone)';

/** A place in words. @example describePlace({ kind: 'account', id: null }, names) // 'the whole account' */
export function describePlace(place: Place, names: Names): string {
  const id = place.id ?? '';
  switch (place.kind) {
    case 'account':
      return 'the whole account';
    case 'campaign':
      return `campaign ${names.campaign(id) ?? GONE}`;
    case 'adGroup':
      return `ad group ${names.adGroup(id) ?? GONE}`;
    case 'list':
      return `list ${names.list(id) ?? GONE}`;
  }
}

/**
 * The name of a keyword in a sentence; undefined where there is no keyword.
 * @example nameKeyword({ text: 'bee hive', match: 'broad' }) // '“bee hive” (broad)'
 */
export function nameKeyword(keyword: { text: string; match: string } | undefined): string | undefined {
  return keyword && `“${keyword.text}” (${keyword.match})`;
}
