import { expect, test } from 'vitest';
import { aTrayChange, aWeight } from '../testing/builders';
import { effectOf, groupChanges, sayGroup } from './groups';

const stop = (id: number, text: string, action: string) =>
  aTrayChange({
    ...{ id, action, said: `Stop “${text}”` },
    change: { kind: 'add negative', text, match: 'phrase', place: { kind: 'campaign', id: '1' } },
  });

test('what one action put in is one group, in the order of the tray', () => {
  const groups = groupChanges([stop(1, 'jobs', 'a'), stop(2, 'movie', 'b'), stop(3, 'salary', 'a')]);
  expect(groups.map(({ changes }) => changes.map(({ id }) => id))).toEqual([[1, 3], [2]]);
});

test('a group says how many negatives it holds, and the first of them', () => {
  const changes = ['jobs', 'salary', 'career', 'wage', 'vacancy'].map((text, i) => stop(i, text, 'a'));
  expect(sayGroup(changes)).toEqual({
    ...{ title: 'Stop by 5 negatives', first: '“jobs”, “salary”, “career” and 2 more' },
  });
  const hang = aTrayChange({
    ...{ kind: 'hang list', said: 'Hang Jobs on Hives' },
    change: { kind: 'hang list', listId: '1', campaignId: '1' },
  });
  expect(sayGroup([changes[0]!, hang])).toEqual({
    title: '2 changes',
    first: '“jobs” and Hang Jobs on Hives',
  });
});

test('the effect of a group is what its changes stop, or open again where that is more', () => {
  const opens = aTrayChange({ stops: aWeight(), reopens: aWeight({ terms: 9, costMicros: 4_000_000 }) });
  expect(effectOf([stop(1, 'a', 'x'), stop(2, 'b', 'x')])).toEqual({
    ...{ terms: 8, costMicros: 15_000_000, opens: false },
  });
  expect(effectOf([opens])).toEqual({ terms: 9, costMicros: 4_000_000, opens: true });
});
