import { formatAmount } from '../figures';
import type { Place } from '../gate';
import type { Change } from './change';

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
const GONE = '(gone)';

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
 * What a keyword is called in a sentence; undefined where there is none.
 * @example nameKeyword({ text: 'bee hive', match: 'broad' }) // '“bee hive” (broad)'
 */
export function nameKeyword(keyword: { text: string; match: string } | undefined): string | undefined {
  return keyword && `“${keyword.text}” (${keyword.match})`;
}

/**
 * A change in one line of words, as the tray and the ledger show it.
 * @example describeChange(stop, names) // 'Stop “free” (broad) in the whole account'
 */
export function describeChange(change: Change, names: Names): string {
  switch (change.kind) {
    case 'add negative':
      return `Stop “${change.text}” (${change.match}) in ${describePlace(change.place, names)}`;
    case 'remove negative':
      return `Let “${change.text}” (${change.match}) through again in ${describePlace(change.place, names)}`;
    case 'make list':
      return `Make the ${change.holds === 'placements' ? 'placement list' : 'list'} ${change.name}`;
    case 'remove list':
      return `Remove the list ${change.name}`;
    case 'rename list':
      return `Rename the list ${change.was} to ${change.name}`;
    case 'hang list':
      return `Hang ${names.list(change.listId) ?? GONE} on ${hangingPlace(change.campaignId, names)}`;
    case 'take down list':
      return `Take ${names.list(change.listId) ?? GONE} down from ${hangingPlace(change.campaignId, names)}`;
    case 'add placement':
      return `Shut out ${change.address} in list ${names.list(change.listId) ?? GONE}`;
    case 'remove placement':
      return `Let ${change.address} show our ads again in list ${names.list(change.listId) ?? GONE}`;
    case 'exclude product':
      return `Exclude product ${change.code} in ${describePlace(change.place, names)}`;
    case 'readmit product':
      return `Let product ${change.code} through again in ${describePlace(change.place, names)}`;
    case 'set bid':
      return `Bid ${formatAmount(change.bidMicros, names.currency)} (was ${formatAmount(change.wasMicros, names.currency)}) for ${keywordName(change.keywordId, names)}`;
    case 'pause keyword':
      return `Pause ${keywordName(change.keywordId, names)}`;
    case 'run keyword':
      return `Run ${keywordName(change.keywordId, names)} again`;
  }
}

function hangingPlace(campaignId: string | null, names: Names): string {
  return campaignId === null ? 'the whole account' : (names.campaign(campaignId) ?? GONE);
}

function keywordName(id: string, names: Names): string {
  return names.keyword?.(id) ?? `keyword ${GONE}`;
}
