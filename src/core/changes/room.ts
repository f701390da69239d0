import { placeKey, type NegativeText, type Place } from '../gate';
import { findRedundant } from '../tidy';
import type { Change } from './change';
import type { RowGate } from './draft';
import type { Limits } from './limits';

/** How full a place is that has a limit (rules 12). */
export type Room = {
  what: 'negatives' | 'lists';
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
 * @example roomAfter(effectOfDraft(layGate(served, account), [stop]).gate, [stop], STANDIN_LIMITS)[0]?.used // 1
 */
export function roomAfter(gate: RowGate, changes: readonly Change[], limits: Limits): Room[] {
  const rooms = changes.flatMap((change): Omit<Room, 'couldDrop'>[] => {
    if (change.kind === 'hang list') {
      const place = { kind: 'campaign', id: change.campaignId } as const;
      const used = gate.listsOn(change.campaignId).length;
      return [{ what: 'lists', place, used, most: limits.listsOnCampaign }];
    }
    if (change.kind !== 'add negative') return [];
    const { place } = change;
    const used = gate.entriesAt(place).length;
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
  const account = gate.shape();
  const there = new Map(
    account.negatives.filter((n) => placeKey(n.place) === placeKey(place)).map((n) => [n.id, n]),
  );
  return findRedundant(account).flatMap(({ id, lasting }) => {
    const negative = there.get(id);
    return lasting && negative ? [{ text: negative.text, match: negative.match }] : [];
  });
}
