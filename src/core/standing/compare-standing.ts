import { newListId, type Change, type ListContent } from '../changes';
import type { MatchType, Place } from '../gate';

/** What stands in an account and keeps queries or placements out. Ids are those of the mirror. */
export type Standing =
  | { kind: 'negative'; text: string; match: MatchType; place: Place }
  | { kind: 'exclusion'; code: string; place: Place }
  | { kind: 'placement'; listId: string; address: string }
  | { kind: 'list'; listId: string; name: string; holds: ListContent }
  /** a list on a campaign; null: on the whole account */
  | { kind: 'hanging'; listId: string; campaignId: string | null };

/** One element that stood then, or stands now, or both. */
export type ComparedStanding<S extends Standing = Standing> = {
  element: S;
  /** gone: it stood then and not now; new: it stands now and did not then; renamed: a list that has another name now */
  is: 'same' | 'gone' | 'new' | 'renamed';
  /** of a list that was renamed */
  nameNow?: string;
};

/**
 * Holds what stood in an account on a day against what stands now; twins count once.
 * @returns what stood then in its order, then what came since
 * @example compareStanding([], [{ kind: 'hanging', listId: '1', campaignId: null }])[0].is // 'new'
 */
export function compareStanding<S extends Standing>(
  then: readonly S[],
  now: readonly S[],
): ComparedStanding<S>[] {
  const nowByKey = new Map(now.map((element) => [keyOf(element), element]));
  const thenByKey = new Map(then.map((element) => [keyOf(element), element]));
  const compared: ComparedStanding<S>[] = [];
  for (const [key, element] of thenByKey) {
    const other = nowByKey.get(key);
    if (!other) compared.push({ element, is: 'gone' });
    else if (element.kind === 'list' && other.kind === 'list' && element.name !== other.name)
      compared.push({ element, is: 'renamed', nameNow: other.name });
    else compared.push({ element, is: 'same' });
  }
  for (const [key, element] of nowByKey) if (!thenByKey.has(key)) compared.push({ element, is: 'new' });
  return compared;
}

/** What tells elements apart; a list is the same list under another name. */
function keyOf(element: Standing): string {
  switch (element.kind) {
    case 'negative':
      return JSON.stringify(['n', element.text, element.match, element.place.kind, element.place.id]);
    case 'exclusion':
      return JSON.stringify(['e', element.code, element.place.kind, element.place.id]);
    case 'placement':
      return JSON.stringify(['p', element.listId, element.address]);
    case 'list':
      return JSON.stringify(['l', element.listId]);
    case 'hanging':
      return JSON.stringify(['h', element.listId, element.campaignId]);
  }
}

/**
 * The changes after which elements stand again as they did, in an order in which they can be made (rules 15.7). A list that is gone
 * is made anew under an id of its own, also where only what it held is wanted.
 * @param chosen what is to be put back; what is the same makes no change
 * @param goneLists all lists that stood then and are gone
 * @param freshKey gives a new key for each list that is made
 * @example changesBack([{ element: { kind: 'hanging', listId: '1', campaignId: null }, is: 'new' }], [], () => '').length // 1
 */
export function changesBack(
  chosen: readonly ComparedStanding[],
  goneLists: readonly Extract<Standing, { kind: 'list' }>[],
  freshKey: () => string,
): Change[] {
  const made = new Map<string, string>();
  const gone = new Map(goneLists.map((list) => [list.listId, list]));
  const steps: [Change[], Change[], Change[], Change[], Change[]] = [[], [], [], [], []];
  const [makes, takesAway, takesDown, puts, removesLists] = steps;
  const idOf = (listId: string): string => {
    const list = gone.get(listId);
    if (!list) return listId;
    if (!made.has(listId)) {
      made.set(listId, newListId(freshKey()));
      makes.push({ kind: 'make list', listId: made.get(listId)!, name: list.name, holds: list.holds });
    }
    return made.get(listId)!;
  };
  const placeOf = (place: Place): Place =>
    place.kind === 'list' ? { kind: 'list', id: idOf(place.id!) } : place;
  for (const { element, is, nameNow } of chosen) {
    if (is === 'same') continue;
    const isGone = is === 'gone';
    switch (element.kind) {
      case 'list': {
        const { listId, name } = element;
        if (is === 'renamed') makes.push({ kind: 'rename list', listId, name, was: nameNow! });
        else if (isGone) idOf(listId);
        else removesLists.push({ kind: 'remove list', listId, name });
        break;
      }
      case 'negative': {
        const { text, match, place } = element;
        if (isGone) puts.push({ kind: 'add negative', text, match, place: placeOf(place) });
        else takesAway.push({ kind: 'remove negative', text, match, place });
        break;
      }
      case 'exclusion': {
        const { code, place } = element;
        (isGone ? puts : takesAway).push({
          kind: isGone ? 'exclude product' : 'readmit product',
          code,
          place,
        });
        break;
      }
      case 'placement': {
        const { listId, address } = element;
        if (isGone) puts.push({ kind: 'add placement', listId: idOf(listId), address });
        else takesAway.push({ kind: 'remove placement', listId, address });
        break;
      }
      case 'hanging': {
        const { listId, campaignId } = element;
        if (isGone) puts.push({ kind: 'hang list', listId: idOf(listId), campaignId });
        else takesDown.push({ kind: 'take down list', listId, campaignId });
        break;
      }
    }
  }
  return steps.flat();
}
