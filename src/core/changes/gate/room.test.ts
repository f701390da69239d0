import { describe, expect, test } from 'vitest';
import { buildTermTable } from '../../mining';
import type { Change } from '../change';
import { layGate } from './lay-gate';
import { USUAL_LIMITS } from '../limits';
import { roomAfter } from './room';

const nothingServed = {
  table: buildTermTable([]),
  rowStarts: new Uint32Array(1),
  adGroupOf: new Uint32Array(0),
  adGroups: [{ id: 'g1', campaignId: 'c1' }],
};
const stop = (text: string, kind: 'account' | 'campaign' | 'list', id: string | null = null): Change => ({
  ...{ kind: 'add negative', text, match: 'broad' },
  place: kind === 'account' ? { kind, id: null } : { kind, id: id! },
});
const limits = { ...USUAL_LIMITS, accountNegatives: 2, listNegatives: 1, listsOnCampaign: 1 };

describe('the room under the limits', () => {
  const gate = () =>
    layGate(nothingServed, {
      campaigns: [],
      lists: [{ id: 'l1', hungOn: ['c1'] }],
      negatives: [{ id: 'n1', text: 'free', match: 'broad', place: { kind: 'account', id: null } }],
    });

  test('counts what is there and what is added, each place once', () => {
    const changes = [stop('a', 'account'), stop('b', 'account'), stop('c', 'list', 'l1')];
    const after = gate();
    for (const change of changes) after.apply(change);
    expect(roomAfter(after, changes, limits)).toEqual([
      { what: 'negatives', place: { kind: 'account', id: null }, used: 3, most: 2, couldDrop: [] },
      { what: 'negatives', place: { kind: 'list', id: 'l1' }, used: 1, most: 1, couldDrop: [] },
    ]);
  });

  test('over the limit, what could be dropped for good is named, wherever the reason stands', () => {
    const changes = [
      stop('free hive', 'account'),
      stop('hive stand', 'account'),
      stop('free film', 'list', 'l1'),
    ];
    const after = gate();
    for (const change of [...changes, stop('hive', 'campaign', 'c1')]) after.apply(change);
    const room = roomAfter(after, changes, { ...limits, listNegatives: 0 });
    expect(room.map((r) => r.couldDrop)).toEqual([
      [{ text: 'free hive', match: 'broad' }],
      [{ text: 'free film', match: 'broad' }],
    ]);
  });

  test('a campaign takes so many lists, and negatives without a limit', () => {
    const changes: Change[] = [
      { kind: 'make list', listId: 'l2', name: 'Films' },
      { kind: 'hang list', listId: 'l2', campaignId: 'c1' },
      stop('a', 'campaign', 'c1'),
    ];
    const after = gate();
    for (const change of changes) after.apply(change);
    expect(roomAfter(after, changes, limits)).toEqual([
      { what: 'lists', place: { kind: 'campaign', id: 'c1' }, used: 2, most: 1, couldDrop: [] },
    ]);
  });

  test('what only takes away says nothing of room', () => {
    expect(roomAfter(gate(), [{ kind: 'take down list', listId: 'l1', campaignId: 'c1' }], limits)).toEqual(
      [],
    );
  });
});
