import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stops, type NegativeText } from '../../gate';
import { aText } from '../../gate/testing';
import { normalise } from '../../text';
import { replaceNegatives } from './replacement';

const negative = (said: string): NegativeText => {
  const [text, match] = said.split(' / ');
  return { text: text!, match: match as NegativeText['match'] };
};
const say = (negatives: readonly NegativeText[]) => negatives.map(({ text, match }) => `${text} / ${match}`);
const isStopped = (negatives: readonly NegativeText[], text: string) =>
  negatives.some((one) => stops(one, text));

describe('fewer negatives in the place of some', () => {
  test('stop the same terms by what they share', () => {
    const found = replaceNegatives({
      standing: ['free hive / exact', 'free kit / exact', 'hive jobs / phrase'].map(negative),
      terms: ['free hive', 'free kit', 'hive jobs', 'hive jobs near me', 'hive kit'],
      open: ['hive'],
    });
    expect(say(found.added)).toEqual(['free / phrase']);
    expect(say(found.kept)).toEqual(['hive jobs / phrase']);
    expect(say(found.removed)).toEqual(['free hive / exact', 'free kit / exact']);
    expect(found).toMatchObject({ terms: 4, opened: [], idle: 0 });
    expect(found.differs.stopped).toContain('free');
    expect(found.differs.open).toEqual([]);
  });

  test('leave a set as it is that can not be smaller; one that stands goes before a new one', () => {
    const standing = ['free hive / phrase', 'jobs / broad'].map(negative);
    const found = replaceNegatives({ standing, terms: ['free hive', 'jobs bee'], open: ['hive'] });
    expect(found).toMatchObject({ kept: standing, added: [], removed: [] });
  });

  test('what stops nothing goes, and it is said what it would have stopped', () => {
    const found = replaceNegatives({
      standing: ['free / phrase', 'yacht / phrase'].map(negative),
      terms: ['free hive', 'bee yachts'],
      open: [],
    });
    expect(say(found.removed)).toEqual(['yacht / phrase']);
    expect(found.idle).toBe(1);
    expect(found.differs.open).toContain('yacht');
  });

  test('what must stay open is open afterwards, and named', () => {
    const found = replaceNegatives({
      standing: ['free / broad'].map(negative),
      terms: ['free hive', 'free shipping hive'],
      open: ['free shipping hive'],
    });
    expect(say(found.added)).toEqual(['free hive / exact']);
    expect(found.opened).toEqual(['free shipping hive']);
  });

  test('what is fixed stays, and is not done twice', () => {
    const found = replaceNegatives({
      standing: ['free hive / exact', 'free kit / exact', 'free book / phrase'].map(negative),
      fixed: ['hive / phrase', 'yacht / phrase'].map(negative),
      terms: ['free hive', 'free kit', 'free book'],
      open: [],
    });
    expect(say([...found.kept, ...found.added])).toEqual(['free / phrase']);
    expect(found.removed).toHaveLength(3);
    expect(found.terms).toBe(2);
  });

  test('of nothing is nothing', () => {
    const nothing = replaceNegatives({ standing: [], terms: ['bee hive', '??'], open: [] });
    expect(nothing).toMatchObject({ kept: [], added: [], removed: [], terms: 0 });
  });

  test('stop exactly what was stopped but for what must stay open, and are never more', () => {
    const aNegative = fc.record({
      text: aText(3),
      match: fc.constantFrom<NegativeText['match']>('broad', 'phrase', 'exact'),
    });
    fc.assert(
      fc.property(
        fc.array(aNegative, { maxLength: 6 }),
        fc.array(aNegative, { maxLength: 2 }),
        fc.array(aText(4), { maxLength: 8 }),
        fc.array(aText(3), { maxLength: 2 }),
        (some, fixed, terms, open) => {
          const found = replaceNegatives({ standing: some, fixed, terms, open });
          const standing = [...some, ...fixed];
          const after = [...fixed, ...found.kept, ...found.added];
          const mustStay = new Set(open.map(normalise));
          for (const term of terms) {
            const expected =
              isStopped(fixed, term) || (isStopped(some, term) && !mustStay.has(normalise(term)));
            expect(isStopped(after, term)).toBe(expected);
          }
          for (const text of open) expect(isStopped(after, text)).toBe(isStopped(fixed, text));
          for (const text of found.differs.open) {
            expect(isStopped(standing, text)).toBe(true);
            expect(isStopped(after, text)).toBe(false);
          }
          for (const text of found.differs.stopped) {
            expect(isStopped(standing, text)).toBe(false);
            expect(isStopped(after, text)).toBe(true);
          }
          const hits = some.some((one) => open.some((text) => stops(one, text)));
          if (!hits)
            expect(found.kept.length + found.added.length).toBeLessThanOrEqual(new Set(say(some)).size);
        },
      ),
    );
  });
});
