import { describe, expect, test } from 'vitest';
import type { Group, GroupsView } from '@/contracts/groups';
import { changesOfGroups, keywordsOfGroups, type Making } from './changes-of-groups';
import { keyOfGroup, keyOfRow, keysOfAll, LEFT, rowsOf } from './group-rows';

const group = (name: string, over: Partial<Group> = {}): Group => ({
  ...{ name, isProposed: false, volume: 90, openingBidMicros: null },
  ideas: [
    { text: 'oak kit', volume: 90, keys: ['oak kit', 'oak kit leeds'] },
    { text: 'pine kit', volume: null },
  ],
  ...over,
});
const view: GroupsView = {
  version: 1,
  groups: [group('Kits'), group('Kits', { isProposed: true })],
  left: [{ text: 'jar', volume: null }],
};
const told = (opened: string[]) => rowsOf(view, new Set(opened)).map(keyOfRow);

describe('rows of groups', () => {
  test('are the groups and what is left over; what is open shows its ideas below', () => {
    expect(told([])).toEqual(['=Kits', '?Kits', LEFT]);
    expect(told([keyOfGroup(view.groups[1]!)])).toEqual([
      '=Kits',
      '?Kits',
      'idea oak kit',
      'idea pine kit',
      LEFT,
    ]);
    expect(told([LEFT])).toEqual(['=Kits', '?Kits', LEFT, 'idea jar']);
    expect(rowsOf({ ...view, left: [] }, new Set())).toHaveLength(2);
  });

  test('an idea stands for all ideas that fold into it', () => {
    expect(keysOfAll(view.groups[0]!.ideas)).toEqual(['oak kit', 'oak kit leeds', 'pine kit']);
  });
});

describe('what groups become', () => {
  const making: Making = {
    ...{ campaign: 'Spring', budgetMicros: 9_000_000, matches: ['exact', 'broad'], bidMicros: 400_000 },
  };

  test('is a campaign where one is made, an ad group each, and a keyword for each idea and match type', () => {
    const changes = changesOfGroups([group('Kits')], making, 'Hives');
    expect(changes.map(({ change }) => change.kind)).toEqual([
      ...['add campaign', 'add ad group', 'add keyword', 'add keyword', 'add keyword', 'add keyword'],
    ]);
    expect(changes[2]).toEqual({
      change: {
        ...{ kind: 'add keyword', campaign: 'Spring', adGroup: 'Kits' },
        ...{ text: 'oak kit', match: 'exact', bidMicros: 400_000 },
      },
      why: 'from the research sheet Hives: 90 searches a month',
    });
    expect(changes.at(-1)!.why).toBe('from the research sheet Hives');
    const there = changesOfGroups([group('Kits')], { ...making, budgetMicros: null }, 'Hives');
    expect(there[0]!.change.kind).toBe('add ad group');
  });

  test('is a row each in a file', () => {
    const { header, rows } = keywordsOfGroups([group('Kits')], { ...making, matches: ['phrase'], bid: 0.4 });
    expect(header).toEqual(['Campaign', 'Ad group', 'Keyword', 'Match type', 'Searches a month', 'Bid']);
    expect(rows).toEqual([
      ['Spring', 'Kits', 'oak kit', 'phrase', 90, 0.4],
      ['Spring', 'Kits', 'pine kit', 'phrase', null, 0.4],
    ]);
  });
});
