import fc from 'fast-check';
import { expect, test } from 'vitest';
import { words } from '../text';
import { strikeOut } from './strike-out';

test('whole runs are struck, wherever they stand; a text of nothing else stays', () => {
  const struck = [['north', 'wales'], ['2026']];
  expect(strikeOut('kiln 2026 north wales', struck)).toBe('kiln');
  expect(strikeOut('north wales 2026', struck)).toBe('north wales 2026');
  expect(strikeOut('north kiln wales', struck)).toBe('north kiln wales');
  expect(strikeOut('kiln', [[]])).toBe('kiln');
});

test('what is left is the words that no run covers, in their order', () => {
  const word = fc.constantFrom('a', 'b', 'c');
  fc.assert(
    fc.property(
      fc.array(word, { minLength: 1, maxLength: 8 }),
      fc.array(fc.array(word, { minLength: 1, maxLength: 3 }), { maxLength: 3 }),
      (text, struck) => {
        const isCovered = (at: number) =>
          struck.some((run) =>
            run.some(
              (_, i) => at - i >= 0 && text.slice(at - i, at - i + run.length).join(' ') === run.join(' '),
            ),
          );
        const left = text.filter((_, at) => !isCovered(at));
        expect(words(strikeOut(text.join(' '), struck))).toEqual(left.length === 0 ? text : left);
      },
    ),
  );
});
