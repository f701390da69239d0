import fc from 'fast-check';
import { expect, test } from 'vitest';
import { budgetOfRule } from './budget-of-rule';

const CENT = 10_000;

test('a budget is raised by a share, to its most, and in whole smallest units', () => {
  const raise = { do: 'raise budget' as const, byShare: 0.15, mostMicros: 50_000_000 };
  expect(budgetOfRule(raise, 10_010_000, CENT)).toBe(11_510_000);
  expect(budgetOfRule(raise, 49_000_000, CENT)).toBe(50_000_000);
  expect(budgetOfRule(raise, 50_000_000, CENT)).toBeNull();
  expect(budgetOfRule({ ...raise, byShare: 0.0001 }, 10_000_000, CENT)).toBeNull();
});

test('it is higher than before, and never above the most', () => {
  const micros = fc.integer({ min: 1, max: 100_000 }).map((cents) => CENT * cents);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 10, noNaN: true }), micros, micros, (byShare, most, was) => {
      const budget = budgetOfRule({ do: 'raise budget', byShare, mostMicros: most }, was, CENT);
      if (budget === null)
        expect(Math.min(most, Math.round((was * (1 + byShare)) / CENT) * CENT)).toBeLessThanOrEqual(was);
      else {
        expect(budget).toBeGreaterThan(was);
        expect(budget).toBeLessThanOrEqual(most);
        expect(budget % CENT).toBe(0);
      }
    }),
  );
});
