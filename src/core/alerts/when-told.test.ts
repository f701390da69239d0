import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { minutesUntilTold, secondsUntilNextTry, type Telling } from './when-told';

const at = (hour: number, minute = 0) => 60 * hour + minute;
const NIGHT = { from: at(22), to: at(7) };

describe('an alert is told', () => {
  test.each<[number, Telling, number]>([
    [at(9), { quiet: null, digestAt: null }, 0],
    [at(9), { quiet: NIGHT, digestAt: null }, 0],
    [at(22), { quiet: NIGHT, digestAt: null }, at(9)], // quiet begins with its first minute
    [at(3), { quiet: NIGHT, digestAt: null }, at(4)],
    [at(7), { quiet: NIGHT, digestAt: null }, 0], // and ends before its last
    [at(13), { quiet: { from: at(12), to: at(14) }, digestAt: null }, at(1)],
    [at(9), { quiet: null, digestAt: at(8) }, at(23)],
    [at(8), { quiet: null, digestAt: at(8) }, 0],
    [at(20), { quiet: NIGHT, digestAt: at(6) }, at(11)], // the digest waits for the end of the quiet, too
    [at(9), { quiet: { from: at(5), to: at(5) }, digestAt: null }, 0], // no quiet at all
  ])('at minute %i by %j after %i minutes', (minute, telling, wait) => {
    expect(minutesUntilTold(minute, telling)).toBe(wait);
  });

  test('never in quiet hours, and never later than it has to be', () => {
    const minute = fc.integer({ min: 0, max: 1_439 });
    const quiet = fc.option(fc.record({ from: minute, to: minute }), { nil: null });
    fc.assert(
      fc.property(minute, quiet, fc.option(minute, { nil: null }), (now, isQuiet, digestAt) => {
        const inQuiet = (m: number) => {
          if (!isQuiet) return false;
          const { from, to } = isQuiet;
          return from <= to ? m >= from && m < to : m >= from || m < to;
        };
        // By the plain rule: minute by minute from the digest on.
        let wait = 0;
        while (digestAt !== null && (now + wait) % 1_440 !== digestAt) wait += 1;
        while (inQuiet((now + wait) % 1_440)) wait += 1;
        expect(minutesUntilTold(now, { quiet: isQuiet, digestAt })).toBe(wait);
      }),
    );
  });
});

test('what failed is tried again after ever longer waits, and given up in the end', () => {
  const waits: number[] = [];
  for (let tries = 1; tries < 50; tries++) {
    const wait = secondsUntilNextTry(tries);
    if (wait === null) break;
    waits.push(wait);
  }
  expect(waits.length).toBeGreaterThan(3);
  expect(waits.length).toBeLessThan(20);
  expect(waits.toSorted((a, b) => a - b)).toEqual(waits);
  expect(new Set(waits).size).toBe(waits.length);
});
