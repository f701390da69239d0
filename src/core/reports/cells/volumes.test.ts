import { describe, expect, test } from 'vitest';
import { readVolume } from './volumes';

describe('a volume', () => {
  test.each([
    ['880', '.', 880, 880, 880],
    ['1,300', '.', 1300, 1300, 1300],
    ['1.300', ',', 1300, 1300, 1300],
    ['10 – 100', '.', 55, 10, 100],
    ['10-100', '.', 55, 10, 100],
    ['1K – 10K', '.', 5500, 1000, 10_000],
    ['1.5K – 2M', '.', 1_000_750, 1500, 2_000_000],
    ['1 Tsd. – 10 Tsd.', ',', 5500, 1000, 10_000],
    ['1 mil a 10 mil', ',', 5500, 1000, 10_000],
    ['100 bis 1.000', ',', 550, 100, 1000],
    ['1 Mio.', ',', 1_000_000, 1_000_000, 1_000_000],
    ['0', '.', 0, 0, 0],
  ] as const)('“%s” (decimal mark %s) is %i, from %i to %i', (cell, mark, middle, from, to) => {
    expect(readVolume(cell, mark)).toEqual({ middle, from, to });
  });

  test.each(['', '–', 'n/a', '< 10'])('“%s” is unknown', (cell) => {
    expect(readVolume(cell, '.')).toBeNull();
  });

  test.each(['many', '100 – 10', '1.5', '10 – ', 'K', '3 hives', '-5', '1e3', '1 – 2 – 3'])(
    '“%s” is none',
    (cell) => {
      expect(readVolume(cell, '.')).toBeUndefined();
    },
  );
});
