import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stemOf, words } from '../text';
import { groupIdeas, stemTexts, type GroupSettings } from './index';

const USUAL: GroupSettings = { smallest: 2, longest: 3, most: 100, fineness: 0.2, without: [] };
const grouped = (texts: readonly string[], over: Partial<GroupSettings> = {}) => {
  const { groups, left } = groupIdeas(stemTexts(texts), { ...USUAL, ...over });
  return { groups: groups.map(({ text, ideas }) => [text, ideas]), left };
};

const LOOMS = [
  'table loom kit',
  'table loom kits',
  'table loom plans',
  'floor loom used',
  'used floor looms',
  'yarn for weaving',
  'weaving yarn',
  'rug hook',
];

describe('groups', () => {
  test('share a run of words in whatever forms, and what fits in none is left over', () => {
    expect(grouped(LOOMS)).toEqual({
      groups: [
        ['table loom', [0, 1, 2]],
        ['floor loom', [3, 4]],
        ['weaving', [5, 6]],
      ],
      left: [7],
    });
  });

  test('are wider when coarse, and of longer runs when fine', () => {
    const texts = [
      'oak table leg',
      'oak table top',
      'oak chair leg',
      'oak chair seat',
      'elm table',
      'elm',
      'ash',
      'ash',
    ];
    expect(grouped(texts, { fineness: 0 }).groups[0]).toEqual(['oak', [0, 1, 2, 3]]);
    expect(grouped(texts, { fineness: 1 }).groups.map(([text]) => text)).toContain('oak table');
  });

  test('are no more than wished, none is smaller than wished, and some words make none alone', () => {
    expect(grouped(LOOMS, { most: 1 }).groups).toHaveLength(1);
    expect(grouped(LOOMS, { smallest: 3 }).groups).toEqual([['table loom', [0, 1, 2]]]);
    expect(grouped(['yarn for rugs', 'hooks for hats', 'oak', 'elm'], { without: ['for'] }).groups).toEqual(
      [],
    );
    expect(grouped(LOOMS, { longest: 1 }).groups.every(([text]) => words(text as string).length === 1)).toBe(
      true,
    );
  });

  test('a run that most ideas hold parts nothing', () => {
    expect(grouped(['loom a', 'loom b', 'loom c', 'rug']).groups).toEqual([]);
    expect(grouped([])).toEqual({ groups: [], left: [] });
    expect(grouped(['', '???'])).toEqual({ groups: [], left: [0, 1] });
  });

  const text = fc
    .array(fc.constantFrom('oak', 'elm', 'table', 'tables', 'leg', 'top', 'seat', 'ash'), { maxLength: 5 })
    .map((all) => all.join(' '));
  const settings = fc.record({
    smallest: fc.integer({ min: 1, max: 4 }),
    longest: fc.integer({ min: 1, max: 4 }),
    most: fc.integer({ min: 0, max: 8 }),
    fineness: fc.double({ min: 0, max: 1, noNaN: true }),
    without: fc.constantFrom([], ['table']),
  });

  test('hold each idea once, each idea of a group holds its run, and what could make one more is not left over', () => {
    fc.assert(
      fc.property(fc.array(text, { maxLength: 14 }), settings, (texts, of) => {
        const { groups, left } = groupIdeas(stemTexts(texts), of);
        const all = [...groups.flatMap(({ ideas }) => ideas), ...left].sort((a, b) => a - b);
        expect(all).toEqual([...texts.keys()]);
        expect(groups.length).toBeLessThanOrEqual(of.most);
        const stems = texts.map((one) => ` ${words(one).map(stemOf).join(' ')} `);
        const share = (run: string) => stems.filter((one) => one.includes(` ${run} `)).length / texts.length;
        for (const group of groups) {
          const run = words(group.text).map(stemOf).join(' ');
          expect(group.ideas.length).toBeGreaterThanOrEqual(of.smallest);
          expect(words(group.text).length).toBeLessThanOrEqual(of.longest);
          expect(share(run)).toBeLessThanOrEqual(0.5);
          for (const idea of group.ideas) expect(stems[idea]).toContain(` ${run} `);
        }
        if (groups.length === of.most) return;
        for (const stem of new Set(left.flatMap((idea) => words(stems[idea]!)))) {
          if (share(stem) > 0.5 || of.without.some((word) => stemOf(word) === stem)) continue;
          expect(left.filter((idea) => stems[idea]!.includes(` ${stem} `)).length).toBeLessThan(of.smallest);
        }
      }),
    );
  });

  test('are the same for the same ideas and settings', () => {
    fc.assert(
      fc.property(fc.array(text, { maxLength: 14 }), settings, (texts, of) => {
        expect(groupIdeas(stemTexts(texts), of)).toEqual(groupIdeas(stemTexts(texts), of));
      }),
    );
  });
});
