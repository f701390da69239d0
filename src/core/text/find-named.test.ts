import fc from 'fast-check';
import { expect, test } from 'vitest';
import { findNamed } from './find-named';

test('the longest name is taken, and no word belongs to two', () => {
  const names = new Set(['york', 'new york', 'york moors']);
  const found = (text: string) =>
    findNamed(text.split(' '), (run) => names.has(run), 2).map(({ name, from }) => [name, from]);
  expect(found('new york moors')).toEqual([['new york', 0]]);
  expect(found('kiln york moors york')).toEqual([
    ['york moors', 1],
    ['york', 3],
  ]);
  expect(found('kiln')).toEqual([]);
});

test('what is found stands in the text, from left to right, and nothing that is a name is passed over', () => {
  const word = fc.constantFrom('a', 'b', 'c', 'd');
  fc.assert(
    fc.property(
      fc.array(word, { maxLength: 8 }),
      fc.array(fc.array(word, { minLength: 1, maxLength: 3 }), { maxLength: 4 }),
      (text, runs) => {
        const names = new Set(runs.map((run) => run.join(' ')));
        const found = findNamed(text, (run) => names.has(run), 3);
        let last = 0;
        for (const { name, from, to } of found) {
          expect(from).toBeGreaterThanOrEqual(last);
          expect(text.slice(from, to).join(' ')).toBe(name);
          last = to;
        }
        const isTaken = (at: number) => found.some(({ from, to }) => from <= at && at < to);
        for (const [at, one] of text.entries()) if (names.has(one)) expect(isTaken(at)).toBe(true);
      },
    ),
  );
});
