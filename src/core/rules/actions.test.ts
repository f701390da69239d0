import { expect, test } from 'vitest';
import { isStop, opposes } from './actions';
import type { RuleAction } from './rule';

const STOPS: RuleAction[] = [
  { do: 'stop', at: 'ad group' },
  { do: 'stop in list', list: '5' },
];
const HOLDS: RuleAction[] = [{ do: 'keep' }, { do: 'set aside', moreClicks: 9 }];
const TELL: RuleAction = { do: 'tell' };

test('a stop is the opposite of keeping open and of waiting, whichever comes first', () => {
  for (const stop of STOPS)
    for (const hold of HOLDS) expect([opposes(stop, hold), opposes(hold, stop)]).toEqual([true, true]);
});

test('two of a kind do not oppose each other, and who only tells opposes nobody', () => {
  for (const kind of [STOPS, HOLDS])
    for (const one of kind) for (const other of kind) expect(opposes(one, other)).toBe(false);
  for (const one of [...STOPS, ...HOLDS, TELL])
    expect([opposes(one, TELL), opposes(TELL, one)]).toEqual([false, false]);
});

test('only stops shut a term out', () => {
  expect(STOPS.every(isStop)).toBe(true);
  expect([...HOLDS, TELL].some(isStop)).toBe(false);
});
