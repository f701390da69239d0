import { placeKey, type NegativeText, type Place } from '../../gate';
import { memoised } from '../../memoised';
import { findRedundant } from '../../tidy';
import type { Change } from '../change';
import { rulesOf } from '../kinds';
import type { Counted, Filled } from '../kinds/kind';
import type { Limits } from '../limits';
import type { RowGate } from './row-gate';

/** How full a place is that has a limit (rules 12). */
export type Room = Filled & {
  /** over the limit: the negatives there that others make needless for good (rules 3), so dropping them changes nothing */
  couldDrop: NegativeText[];
};

/**
 * How full the places are that changes add to, once all of them are made.
 * @param gate the account as the changes leave it
 * @returns each place once; over its limit where used > most
 * @example roomAfter(effectOfDraft(layGate(served, account), [stop]).gate, [stop], USUAL_LIMITS)[0]?.used // 1
 */
export function roomAfter(gate: RowGate, changes: readonly Change[], limits: Limits): Room[] {
  // Thousands of changes may add to one place: it is counted once.
  const count: Counted = {
    negatives: memoised(placeKey, (place: Place) => gate.entriesAt(place).length),
    placements: memoised(itself, (listId) => gate.placementsIn(listId).length),
    listsOn: memoised(itself, (campaignId) => gate.listsOn(campaignId).length),
  };
  const rooms = changes.flatMap((change) => rulesOf(change).fills?.(change, count, limits) ?? []);
  const distinct = new Map(rooms.map((room) => [placeKey(room.place), room]));
  return [...distinct.values()].map((room) => ({ ...room, couldDrop: whatCouldBeDropped(gate, room) }));
}

const itself = (id: string) => id;

function whatCouldBeDropped(gate: RowGate, { what, place, used, most }: Filled): NegativeText[] {
  if (what !== 'negatives' || used <= most) return [];
  const { campaigns, lists } = gate.frame();
  // For good (rules 3), only what stands there itself or acts on the whole account makes another needless.
  const everywhere = lists.flatMap(({ id, hungOn }) => (hungOn === 'account' ? [id] : []));
  const acting: Place[] = [
    { kind: 'account', id: null },
    ...everywhere.map((id) => ({ kind: 'list' as const, id })),
    place,
  ];
  const places = new Map(acting.map((one) => [placeKey(one), one]));
  const negatives = [...places].flatMap(([key, at]) =>
    gate.entriesAt(at).map((entry, i) => ({ ...entry, id: `${key} ${i}`, place: at })),
  );
  const there = new Map(negatives.filter((n) => n.place === place).map((n) => [n.id, n]));
  return findRedundant({ campaigns, lists, negatives }).flatMap(({ id, lasting }) => {
    const negative = there.get(id);
    return lasting && negative ? [{ text: negative.text, match: negative.match }] : [];
  });
}
