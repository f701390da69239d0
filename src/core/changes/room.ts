import { placeKey, type Place } from '../gate';
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
};

/**
 * How full the places are that changes add to, once all of them are made.
 * @param gate the account as the changes leave it
 * @returns each place once; over its limit where used > most
 * @example roomAfter(effectOfDraft(layGate(served, account), [stop]).gate, [stop], STANDIN_LIMITS)[0]?.used // 1
 */
export function roomAfter(gate: RowGate, changes: readonly Change[], limits: Limits): Room[] {
  const rooms = changes.flatMap((change): Room[] => {
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
  return [...new Map(rooms.map((room) => [placeKey(room.place), room])).values()];
}
