import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Structure } from '@/contracts/platform';
import { stops } from '@/core';
import { matcherOf } from './keyword-matching';

type Keyword = Structure['keywords'][number];
const keyword = (
  id: string,
  text: string,
  match: Keyword['match'],
  over: Partial<Keyword> = {},
): Keyword => ({
  ...{ id, text, match, adGroupId: `g-${id}`, status: 'live', bidMicros: 1, changedOn: null },
  ...over,
});
const asked = (text: string, means: string[] = [], automaticIn: string[] = []) => ({
  ...{ text, means, automaticIn },
});

test('exact, phrase and broad keywords match as their names say, and the nearer fits better', () => {
  const matchesOf = matcherOf({
    keywords: [
      keyword('exact', 'Bee Suit', 'exact'),
      keyword('phrase', 'bee suit', 'phrase'),
      keyword('broad', 'suit bee', 'broad'),
      keyword('meant', 'beekeeping jacket', 'broad'),
      keyword('gone', 'bee suit', 'exact', { status: 'removed' }),
    ],
  });
  const at = (text: string, means: string[]) =>
    matchesOf(asked(text, means))
      .toSorted((a, b) => b.fit - a.fit)
      .map((m) => m.keywordId);
  expect(at('bee suit', ['beekeeping', 'jacket'])).toEqual(['exact', 'phrase', 'broad', 'meant']);
  expect(at('white bee suit', ['beekeeping', 'jacket'])).toEqual(['phrase', 'broad', 'meant']);
  expect(at('suit for a bee', ['beekeeping'])).toEqual(['broad']);
  expect(at('bee', ['beekeeping'])).toEqual([]);
});

test('what a query means lets broad keywords match that share no word with it', () => {
  const matchesOf = matcherOf({ keywords: [keyword('added', 'apiary overalls', 'broad')] });
  expect(matchesOf(asked('bee suit price', ['apiary', 'overalls']))).toHaveLength(1);
  expect(matchesOf(asked('bee suit price', ['apiary']))).toEqual([]);
});

test('ad groups without keywords serve what is theirs', () => {
  const [match] = matcherOf({ keywords: [] })(asked('LK-2041-S', [], ['g-auto']));
  expect(match).toMatchObject({ adGroupId: 'g-auto', keywordId: null });
});

test('by text alone, keywords match the queries that negatives of the same text and match type would stop', () => {
  const words = fc
    .array(fc.constantFrom('bee', 'hive', 'suit', 'free', 'plans'), { minLength: 1, maxLength: 4 })
    .map((all) => all.join(' '));
  const some = fc.record({
    text: words,
    match: fc.constantFrom('exact' as const, 'phrase' as const, 'broad' as const),
  });
  fc.assert(
    fc.property(fc.array(some, { maxLength: 8 }), words, (texts, query) => {
      const keywords = texts.map(({ text, match }, i) => keyword(String(i), text, match));
      const found = matcherOf({ keywords })(asked(query))
        .map((m) => m.keywordId)
        .sort();
      const readable = keywords.filter(
        (k) => k.match !== 'automatic' && stops({ text: k.text, match: k.match }, query),
      );
      expect(found).toEqual(readable.map((k) => k.id).sort());
    }),
  );
});
