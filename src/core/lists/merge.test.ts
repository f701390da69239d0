import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileGate, covers } from '../gate';
import { compareEntries, mergeEntries, splitByTheme } from './index';
import { anyEntries, anyText, entryKeys } from './testing';

const RUNS = { numRuns: 1_000 };

describe('merging, splitting and comparing', () => {
  test('a merged list stops what any of them stops, and nothing in it is needless', () => {
    fc.assert(
      fc.property(anyEntries, anyEntries, anyText, (first, second, query) => {
        const { entries, needless } = mergeEntries([first, second]);
        const gate = compileGate([...first, ...second]);
        expect(compileGate(entries).isStopped(query)).toBe(gate.isStopped(query));
        expect(entries.length + needless.length).toBe(first.length + second.length);
        entries.forEach((a, i) => entries.forEach((b, j) => expect(i !== j && covers(a, b)).toBe(false)));
      }),
      RUNS,
    );
  });

  test('each entry is in one part, and the entries of a part share a word in some form', () => {
    fc.assert(
      fc.property(anyEntries, (entries) => {
        const parts = splitByTheme(entries);
        expect(parts.flatMap((part) => part.entries).length).toBe(entries.length);
        expect(new Set(parts.flatMap((part) => part.entries))).toEqual(new Set(entries));
        for (const { theme, entries: of } of parts) {
          if (theme === null) continue;
          expect(of.length).toBeGreaterThan(1);
          const stem = theme.replace(/s$/, '');
          expect(of.every(({ text }) => text.split(' ').some((w) => w.replace(/s$/, '') === stem))).toBe(
            true,
          );
        }
      }),
      RUNS,
    );
  });

  test('compared, each entry of both lists is told once', () => {
    fc.assert(
      fc.property(anyEntries, anyEntries, (first, second) => {
        const { onlyFirst, onlySecond, both } = compareEntries(first, second);
        expect(entryKeys([...onlyFirst, ...both])).toEqual(entryKeys(first));
        expect(entryKeys([...onlySecond, ...both])).toEqual(entryKeys(second));
        expect(entryKeys(onlyFirst).some((key) => entryKeys(second).includes(key))).toBe(false);
      }),
      RUNS,
    );
    expect(
      compareEntries([{ text: 'free', match: 'broad' }], [{ text: 'free plans', match: 'exact' }]).covered,
    ).toEqual([
      {
        entry: { text: 'free plans', match: 'exact' },
        in: 'second',
        coveredBy: { text: 'free', match: 'broad' },
      },
    ]);
  });
});
