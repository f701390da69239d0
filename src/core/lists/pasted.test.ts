import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { productCodeTest, USUAL_LIMITS } from '../changes';
import { cleanPlacement, foldPlacements, readNegativeLines, readPlacementLines, shutsOut } from './index';

const read = (pasted: string) =>
  readNegativeLines(pasted, {
    match: 'broad',
    limits: USUAL_LIMITS,
    isProductCode: productCodeTest('LK-[0-9]{4}(-[SML])?'),
  });
const entry = (pasted: string) => {
  const [only] = read(pasted).entries;
  return only && `${only.match}: ${only.text}`;
};

describe('pasted negatives', () => {
  test.each([
    ['free', 'broad: free'],
    ['"free plans"', 'phrase: free plans'],
    ['“free plans”', 'phrase: free plans'],
    ['„free plans“', 'phrase: free plans'],
    ['[free plans]', 'exact: free plans'],
    ['- free plans', 'broad: free plans'],
    ['• "free plans"', 'phrase: free plans'],
    ['12. [free plans]', 'exact: free plans'],
    ['3) free', 'broad: free'],
    ['[x] free', 'broad: free'],
    ['[ ] free', 'broad: free'],
    ['free\texact', 'exact: free'],
    ['free plans;Phrase match', 'phrase: free plans'],
    ['"free plans",exact', 'exact: free plans'],
    ['free plans, Genau passend', 'exact: free plans'],
    ['free,', 'broad: free'],
    ['2024 calendar', 'broad: 2024 calendar'],
    ['1,000 bees', 'broad: 1 000 bees'],
    ['Men’s  FREE-suit', 'broad: mens free suit'],
    ['"plans, free"', 'phrase: plans free'],
    ['exact scale', 'broad: exact scale'],
  ])('%s', (line, said) => {
    expect(entry(line)).toBe(said);
  });

  test('columns are found by their header, whatever their order', () => {
    const { entries } = read(
      'Match type,List,Keyword\nExact,Films,"bee, movie"\nPhrase,Films,cartoon\n,Films,[meme]',
    );
    expect(entries.map(({ text, match, line }) => [text, match, line])).toEqual([
      ['bee movie', 'exact', 2],
      ['cartoon', 'phrase', 3],
      ['meme', 'exact', 4],
    ]);
  });

  test('what is refused says where and why, and what stands twice is told', () => {
    const { entries, refused, twice } = read(
      'free\n\n???\nLK-2041-S\nfree, jobs\nFREE\n"free"\n' + 'a '.repeat(13),
    );
    expect(entries.map(({ text, match }) => `${match} ${text}`)).toEqual(['broad free', 'phrase free']);
    expect(refused.map(({ line }) => line)).toEqual([3, 4, 5, 8]);
    expect(refused[0]!.reason).toContain('needs a word');
    expect(refused[1]!.reason).toContain('product code');
    expect(refused[2]!.reason).toContain('more than one text');
    expect(twice).toEqual([{ line: 6, raw: 'FREE', sameAs: 1 }]);
  });

  test('every line that is not blank is told of once, whatever it holds', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(fc.string({ unit: 'grapheme' }), fc.constantFrom('free', '"', '[', '=cmd', '- ', '1.')),
        ),
        (lines) => {
          const pasted = lines.map((line) => line.replace(/[\r\n]/g, ' ')).join('\n');
          const { entries, refused, twice } = read(pasted);
          const filled = pasted
            .replace(/^\uFEFF/u, '')
            .split('\n')
            .filter((line) => line.trim() !== '').length;
          const told = entries.length + refused.length + twice.length;
          expect([filled, filled - 1]).toContain(told); // a first line may be read as a header
          for (const { text } of entries) expect(text).not.toBe('');
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('ten thousand lines are read', () => {
    const pasted = Array.from({ length: 10_000 }, (_, i) => `${i + 1}. "word${i} free"`).join('\r\n');
    expect(read(pasted).entries.length).toBe(10_000);
  });
});

describe('placements', () => {
  test.each([
    ['https://www.Films.example/', 'films.example'],
    ['HTTP://films.example:8080/clips/?a=1#top', 'films.example/clips'],
    ['app.store.example/app/hive-game', 'app.store.example/app/hive-game'],
    ['android-app://example.hive.game', 'example.hive.game'],
    ['bücher.example', 'bücher.example'],
    ['films', undefined],
    ['two words.example', undefined],
    ['', undefined],
    ['=1+1', undefined],
  ])('%s', (raw, cleaned) => {
    expect(cleanPlacement(raw)).toBe(cleaned);
  });

  test('are folded by host, and what is no address says so', () => {
    const read = readPlacementLines(
      'Placement\nwww.films.example\nold.films.example/clips\nfilms.example\nno address\nwww.b.example;12 clicks',
    );
    expect(read).toEqual({
      addresses: ['films.example', 'b.example'],
      folded: [{ address: 'old.films.example/clips', under: 'films.example' }],
      refused: [{ line: 5, raw: 'no address', reason: expect.stringContaining('no address') as string }],
      twice: 1,
    });
  });

  test('folded, a list shuts out what it did, and no entry is below another', () => {
    const anyAddress = fc
      .tuple(fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 2 }), fc.constantFrom('', '/x', '/x/y'))
      .map(([labels, path]) => [...labels, 'films.example'].join('.') + path);
    fc.assert(
      fc.property(fc.array(anyAddress, { maxLength: 8 }), anyAddress, (all, address) => {
        const { addresses } = foldPlacements(all);
        const isOut = (list: readonly string[]) => list.some((entry) => shutsOut(entry, address));
        expect(isOut(addresses)).toBe(isOut(all));
        for (const a of addresses) for (const b of addresses) expect(a !== b && shutsOut(a, b)).toBe(false);
      }),
      { numRuns: 1_000 },
    );
  });

  test('cleaning twice changes nothing', () => {
    fc.assert(
      fc.property(fc.webUrl(), (url) => {
        const cleaned = cleanPlacement(url);
        if (cleaned !== undefined) expect(cleanPlacement(cleaned)).toBe(cleaned);
      }),
      { numRuns: 1_000 },
    );
  });
});
