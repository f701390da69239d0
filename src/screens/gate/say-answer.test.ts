import { describe, expect, test } from 'vitest';
import { sayCampaign, sayWhole } from './say-answer';

describe('the answer of Gate check', () => {
  test.each([
    [3, 3, 'Through everywhere'],
    [3, 0, 'Stopped everywhere'],
    [3, 1, 'Through in 1, stopped in 2 ad groups'],
    [0, 0, 'Nothing is live that could serve it'],
  ])('of %i ad groups %i open: %s', (adGroups, open, said) =>
    expect(sayWhole({ adGroups, open })).toBe(said),
  );

  test.each([
    ['live', 2, 0, 'through'],
    ['live', 0, 2, 'stopped'],
    ['live', 1, 2, 'through in 1, stopped in 2'],
    ['live', 0, 0, 'no live ad group: serves nothing'],
    ['paused', 0, 0, 'paused: serves nothing'],
    ['ended', 0, 0, 'ended: serves nothing'],
  ])('a campaign that is %s, %i open and %i stopped: %s', (status, open, stopped, said) =>
    expect(sayCampaign({ status, open, stopped })).toBe(said),
  );
});
