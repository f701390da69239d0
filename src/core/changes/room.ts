import { placeKey, type NegativeText, type Place } from '../gate';
import { memoised } from '../memoised';
import { findRedundant } from '../tidy';
import type { Change } from './change';
import type { RowGate } from './row-gate';
import type { Limits } from './limits';

/** How full a place is that has a limit (rules 12). */
export type Room = {
  what: 'negatives' | 'lists' | 'placements';
  /** the account, a list, or a campaign (which takes lists) */
  place: Place;
  used: number;
  most: number;
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
  const entries = memoised(placeKey, (place: Place) => gate.entriesAt(place).length);
  const placements = memoised(
    (id: string) => id,
    (id) => gate.placementsIn(id).length,
  );
  const rooms = changes.flatMap((change): Omit<Room, 'couldDrop'>[] => {
    if (change.kind === 'add placement') {
      const place = { kind: 'list', id: change.listId } as const;
      const used = placements(change.listId);
      return [{ what: 'placements', place, used, most: limits.listPlacements }];
    }
    if (change.kind === 'hang list' && change.campaignId !== null) {
      const place = { kind: 'campaign', id: change.campaignId } as const;
      const used = gate.listsOn(change.campaignId).length;
      return [{ what: 'lists', place, used, most: limits.listsOnCampaign }];
    }
    if (change.kind !== 'add negative') return [];
    const { place } = change;
    const used = entries(place);
    switch (place.kind) {
      case 'account':
        return [{ what: 'negatives', place, used, most: limits.accountNegatives }];
      case 'list':
        return [{ what: 'negatives', place, used, most: limits.listNegatives }];
      case 'campaign':
      case 'adGroup':
        return []; // without a limit
    }
  });
  const distinct = new Map(rooms.map((room) => [placeKey(room.place), room]));
  return [...distinct.values()].map((room) => ({ ...room, couldDrop: whatCouldBeDropped(gate, room) }));
}

function whatCouldBeDropped(
  gate: RowGate,
  { what, place, used, most }: Omit<Room, 'couldDrop'>,
): NegativeText[] {
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
