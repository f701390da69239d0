import { changeKey, negativesBroughtBy, stops, type Change, type OwnKeyword, type RowGate } from '@/core';
import { derivedOnward } from '../../compute/derived';
import { adGroupIds, newAdGroupId } from '../../compute/promotion/groups';
import { canServe } from '../../compute/serving';
import { protectedBy } from '../../compute/workbench';
import type { Open } from '../open-workbench';
import { keywordName, keywordsByName } from '../promotion/planning';

/** Whether the tray makes a keyword, or turns one on or off, by the key of the change that does. */
type IsMade = (key: string) => boolean;

/**
 * Protected terms that a change would stop (rules 6). A negative that routes hurts none that a keyword of its own serves
 * where nothing stops it.
 * @param gate the account with the changes before it
 * @param isMade besides those of the tray
 */
export function hurtBy(open: Open, change: Change, gate: RowGate, isMade: IsMade = () => false): string[] {
  const hits = protectedBy(open, negativesBroughtBy(change, gate));
  if (hits.length === 0 || change.kind !== 'add negative' || !change.leavesTo) return hits;
  const { text, leavesTo } = change;
  const seats = leavesTo.filter((seat) => isThere(open, seat, text, isMade));
  return hits.filter((hit) => !seats.some((seat) => isServedBy(open, gate, { ...seat, text }, hit)));
}

/** Whether the keyword of a seat is live, or is made together with the negative. */
function isThere(
  open: Open,
  { campaign, adGroup, match }: OwnKeyword,
  text: string,
  isMade: IsMade,
): boolean {
  const id = adGroupIds(open.snapshot).get(newAdGroupId({ campaign, adGroup }));
  if (id === undefined || !canServe(open.snapshot, { kind: 'adGroup', id })) return false;
  const key = changeKey({ kind: 'add keyword', campaign, adGroup, text, match, bidMicros: 0 });
  return isMade(key) || laidIn(open).made.has(key) || runs(open, id, match, text, isMade);
}

/** Whether a live keyword of an ad group says the text, and the tray does not pause it; or the tray runs it again. */
function runs(
  { snapshot, laid }: Open,
  adGroupId: string,
  match: string,
  text: string,
  isMade: IsMade,
): boolean {
  const keyword = keywordsByName(snapshot).get(keywordName(adGroupId, match, text));
  if (!keyword) return false;
  const isLive = keyword.status === 'live' || keyword.status === 'unknown';
  // Only what is otherwise can be put in a tray, so a paused keyword is run by it, and a live one paused.
  if (isMade(changeKey({ kind: 'run keyword', keywordId: keyword.id }))) return !isLive;
  const turned = laid.findLast(
    (change) =>
      (change.kind === 'pause keyword' || change.kind === 'run keyword') && change.keywordId === keyword.id,
  );
  return turned ? turned.kind === 'run keyword' : isLive;
}

/** What the tray, or what was sent, lays: keywords that it makes, and what stops more than one ad group. */
const laidIn = derivedOnward(
  (open: Open, before?: { upTo: number; made: ReadonlySet<string>; wide: Change[] }) => {
    const made = new Set(before?.made);
    const wide = [...(before?.wide ?? [])];
    for (const change of open.laid.slice(before?.upTo ?? 0)) {
      if (change.kind === 'add keyword') made.add(changeKey(change));
      if (change.kind === 'remove keyword') made.delete(changeKey(change));
      if (change.kind === 'hang list' || (change.kind === 'add negative' && change.place.kind !== 'adGroup'))
        wide.push(change);
    }
    return { upTo: open.laid.length, made, wide };
  },
);

/** Whether a keyword would get a query, and nothing stops it in the keyword's ad group. */
function isServedBy(
  open: Open,
  gate: RowGate,
  { campaign, adGroup, match, text }: OwnKeyword & { text: string },
  query: string,
): boolean {
  const { snapshot } = open;
  if (!stops({ text, match }, query)) return false;
  const id = adGroupIds(snapshot).get(newAdGroupId({ campaign, adGroup }))!;
  const at = snapshot.adGroup.get(id)!;
  const stands = snapshot.accountGate.stoppers(query, id).some((negativeId) => {
    const negative = snapshot.negative.get(negativeId)!;
    return gate.holds(negative, negative.place) && gate.isWithin(negative.place, at);
  });
  const isLaid = laidIn(open).wide.some((change) => {
    if (change.kind === 'hang list')
      return (
        gate.isWithin({ kind: 'list', id: change.listId }, at) &&
        gate.entriesAt({ kind: 'list', id: change.listId }).some((one) => stops(one, query))
      );
    return change.kind === 'add negative' && gate.isWithin(change.place, at) && stops(change, query);
  });
  return !stands && !isLaid && !gate.entriesAt({ kind: 'adGroup', id }).some((one) => stops(one, query));
}
