import { describe, expect, test } from 'vitest';
import { whereItPays } from './where-it-pays';

describe('a word pays in a campaign', () => {
  const part = (campaign: string, expected: number, conversions: number) => ({
    ...{ campaign, expected, conversions, needed: NaN },
  });

  test('where it brought something and is not surely at fault; rows of a campaign are summed', () => {
    const rows = [part('good', 1, 1), part('good', 1, 1), part('bad', 12, 0), part('one by chance', 20, 1)];
    expect(whereItPays(rows, 1, 0.8)).toEqual(new Set(['good']));
    expect(whereItPays(rows, 1, 1)).toEqual(new Set(['good', 'one by chance']));
  });

  test('not where the target asks for more than it brought', () => {
    expect(whereItPays([{ ...part('c', 4, 1), needed: 0.1 }], 1, 0.8)).toEqual(new Set(['c']));
    expect(whereItPays([], 1, 0.8)).toEqual(new Set());
  });
});
