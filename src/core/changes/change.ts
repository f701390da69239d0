import { placeKey, type MatchType, type Place } from '../gate';
import { normalise } from '../text';

/**
 * Everything that can be asked of an ad platform. A change names what it is about by content (place, text, match
 * type), not by the id of a row, so that its inverse can be told from the change alone.
 * Lists that do not exist yet are named by the id that their 'make list' change gives them (`new:` and a key).
 */
export type Change =
  | { kind: 'add negative'; text: string; match: MatchType; place: Place }
  | { kind: 'remove negative'; text: string; match: MatchType; place: Place }
  | { kind: 'make list'; listId: string; name: string; holds?: ListContent }
  | { kind: 'remove list'; listId: string; name: string; holds?: ListContent }
  | { kind: 'rename list'; listId: string; name: string; was: string }
  /** the campaign null is the whole account */
  | { kind: 'hang list'; listId: string; campaignId: string | null }
  | { kind: 'take down list'; listId: string; campaignId: string | null }
  /** a site, an app or a channel (rules 2.6), as `cleanPlacement` writes it */
  | { kind: 'add placement'; address: string; listId: string }
  | { kind: 'remove placement'; address: string; listId: string }
  | { kind: 'exclude product'; code: string; place: Place }
  | { kind: 'readmit product'; code: string; place: Place }
  /** the bid is the most that a click may cost, micro-units; `wasMicros` is what it was */
  | { kind: 'set bid'; keywordId: string; bidMicros: number; wasMicros: number }
  | { kind: 'pause keyword'; keywordId: string }
  | { kind: 'run keyword'; keywordId: string };

/** What a shared list holds; words where nothing is said. */
export type ListContent = 'words' | 'placements';

export type ChangeKind = Change['kind'];

/**
 * What a list that is still in the tray is called by the changes that need it.
 * @example newListId('1f') // 'new:1f'
 */
export function newListId(key: string): string {
  return `new:${key}`;
}

/**
 * Whether a list id names a list that the platform does not have yet.
 * @example isNewListId('7') // false
 */
export function isNewListId(listId: string): boolean {
  return listId.startsWith('new:');
}

/**
 * The change that takes this one back. `inverse(inverse(c))` is c.
 * @example inverse(stop).kind // 'remove negative'
 */
export function inverse(change: Change): Change {
  switch (change.kind) {
    case 'add negative':
      return { ...change, kind: 'remove negative' };
    case 'remove negative':
      return { ...change, kind: 'add negative' };
    case 'make list':
      return { ...change, kind: 'remove list' };
    case 'remove list':
      return { ...change, kind: 'make list' };
    case 'rename list':
      return { ...change, name: change.was, was: change.name };
    case 'hang list':
      return { ...change, kind: 'take down list' };
    case 'take down list':
      return { ...change, kind: 'hang list' };
    case 'add placement':
      return { ...change, kind: 'remove placement' };
    case 'remove placement':
      return { ...change, kind: 'add placement' };
    case 'exclude product':
      return { ...change, kind: 'readmit product' };
    case 'readmit product':
      return { ...change, kind: 'exclude product' };
    case 'set bid':
      return { ...change, bidMicros: change.wasMicros, wasMicros: change.bidMicros };
    case 'pause keyword':
      return { ...change, kind: 'run keyword' };
    case 'run keyword':
      return { ...change, kind: 'pause keyword' };
  }
}

/**
 * What a change is about, whichever way it goes: two changes of one key are the same (drafted once) or opposites
 * (which cancel).
 * @example changeKey({ kind: 'make list', listId: 'new:1', name: 'Jobs' }) // 'list|new:1'
 */
export function changeKey(change: Change): string {
  switch (change.kind) {
    case 'add negative':
    case 'remove negative':
      return `negative|${placeKey(change.place)}|${change.match}|${normalise(change.text)}`;
    case 'make list':
    case 'remove list':
      return `list|${change.listId}`;
    case 'rename list':
      return `name|${change.listId}`;
    case 'hang list':
    case 'take down list':
      return `hanging|${change.listId}|${change.campaignId ?? 'account'}`;
    case 'add placement':
    case 'remove placement':
      return `placement|${change.listId}|${change.address}`;
    case 'exclude product':
    case 'readmit product':
      return `product|${placeKey(change.place)}|${codeKey(change.code)}`;
    case 'set bid':
      return `bid|${change.keywordId}`;
    case 'pause keyword':
    case 'run keyword':
      return `running|${change.keywordId}`;
  }
}

/**
 * A product code as codes are compared (rules 2.5): trimmed, case aside.
 * @example codeKey(' LK-2041-S ') // 'lk-2041-s'
 */
export function codeKey(code: string): string {
  return code.trim().toLowerCase();
}

/**
 * Whether the two are opposites: same key, other direction.
 * @example cancels(stop, inverse(stop)) // true
 */
export function cancels(a: Change, b: Change): boolean {
  if (changeKey(a) !== changeKey(b)) return false;
  if (a.kind === 'set bid' && b.kind === 'set bid') return a.wasMicros === b.bidMicros;
  if (a.kind === 'rename list' && b.kind === 'rename list') return a.was === b.name;
  return a.kind !== b.kind;
}

/**
 * The list a change needs to exist, if any.
 * @example listOf({ kind: 'hang list', listId: '7', campaignId: 'c1' }) // '7'
 */
export function listOf(change: Change): string | undefined {
  switch (change.kind) {
    case 'add negative':
    case 'remove negative':
      return change.place.kind === 'list' ? (change.place.id ?? undefined) : undefined;
    case 'make list':
    case 'remove list':
    case 'rename list':
    case 'hang list':
    case 'take down list':
    case 'add placement':
    case 'remove placement':
      return change.listId;
    case 'exclude product':
    case 'readmit product':
    case 'set bid':
    case 'pause keyword':
    case 'run keyword':
      return undefined;
  }
}
