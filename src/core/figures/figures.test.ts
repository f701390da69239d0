import { describe, expect, test } from 'vitest';
import { compareWithUndefinedLast, noFigures, ratios, spendWithoutReturn, sumFigures } from './figures';
import { daysBetween, lookBack, shiftDay } from './window';

describe('sums and ratios', () => {
  test('sums come first, then ratios', () => {
    const sum = sumFigures([
      { impressions: 100, clicks: 10, costMicros: 5_000_000, conversions: 1, valueMicros: 20_000_000 },
      { impressions: 100, clicks: 30, costMicros: 5_000_000, conversions: 1, valueMicros: null },
    ]);
    expect(ratios(sum)).toEqual({
      ctr: 0.2,
      cpcMicros: 250_000,
      cvr: 0.05,
      cpaMicros: 5_000_000,
      acos: 0.5,
      roas: 2,
    });
  });

  test('a ratio over nothing is undefined, never 0 and never infinite', () => {
    const sum = sumFigures([{ impressions: 0, clicks: 0, costMicros: 3, conversions: 0, valueMicros: 0 }]);
    expect(ratios(sum)).toMatchObject({ ctr: null, cpcMicros: null, cvr: null, cpaMicros: null, acos: null });
  });

  test('what no row knows stays unknown', () => {
    expect(sumFigures([{ clicks: 2 }, { clicks: null }])).toEqual({ ...noFigures(), clicks: 2 });
  });

  test('spend counts as without return only when conversions are known to be 0', () => {
    expect(spendWithoutReturn({ ...noFigures(), costMicros: 7, conversions: 0 })).toBe(7);
    expect(spendWithoutReturn({ ...noFigures(), costMicros: 7, conversions: 0.5 })).toBe(0);
    expect(spendWithoutReturn({ ...noFigures(), costMicros: 7 })).toBe(0);
  });

  test('the undefined is sorted last both ways', () => {
    const values = [3, null, 1, null, 2];
    expect([...values].sort((a, b) => compareWithUndefinedLast(a, b, 'asc'))).toEqual([1, 2, 3, null, null]);
    expect([...values].sort((a, b) => compareWithUndefinedLast(a, b, 'desc'))).toEqual([3, 2, 1, null, null]);
  });
});

describe('the window', () => {
  test('ends the lag before the newest day, both ends included', () => {
    expect(lookBack('2026-06-30', 30, 2)).toEqual({ from: '2026-05-30', to: '2026-06-28' });
  });
  test('days are counted over months, leap days and clock changes', () => {
    expect(shiftDay('2028-03-01', -1)).toBe('2028-02-29');
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2);
  });
});
