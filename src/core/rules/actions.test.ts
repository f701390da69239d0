import { expect, test } from 'vitest';
import { isStop, opposes } from './actions';
import type { RuleAction } from './rule';

const bid = { leastMicros: 0, mostMicros: 9 };
const LESS: RuleAction[] = [
  { do: 'stop', at: 'ad group' },
  { do: 'stop in list', list: '5' },
  { do: 'pause' },
  { do: 'set bid', way: 'lower', ...bid },
];
const MORE: RuleAction[] = [
  { do: 'keep' },
  { do: 'set aside', moreClicks: 9 },
  { do: 'set bid', way: 'raise', ...bid },
];
const TELL: RuleAction = { do: 'tell' };

test('who wants less of it opposes who wants it open or more of it, whichever comes first', () => {
  for (const less of LESS)
    for (const more of MORE) expect([opposes(less, more), opposes(more, less)]).toEqual([true, true]);
});

test('two of a kind do not oppose each other, and who only tells opposes nobody', () => {
  for (const kind of [LESS, MORE])
    for (const one of kind) for (const other of kind) expect(opposes(one, other)).toBe(false);
  for (const one of [...LESS, ...MORE, TELL])
    expect([opposes(one, TELL), opposes(TELL, one)]).toEqual([false, false]);
});

test('only stops shut a term out', () => {
  expect([...LESS, ...MORE, TELL].map(isStop)).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
    false,
    false,
  ]);
});
