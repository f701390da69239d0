import { expect, test } from 'vitest';
import { findThemes } from './themes';

const term = (text: string, costMicros: number, conversions: number | null = 0) => ({
  text,
  costMicros,
  conversions,
});

test('words that are asked for together are one theme, their forms one word', () => {
  const themes = findThemes([
    term('bee movie cast', 5),
    term('honey movies cast', 4),
    term('hive movie', 3),
    term('bee suit', 2, 1),
    term('hive', 1, 1),
    term('honey', 1, 1),
    term('hive tattoo', 2),
    term('bee tattoos', 1),
  ]);
  expect(themes).toMatchObject([
    { words: ['movie', 'cast'], terms: [0, 1, 2], costMicros: 12, conversions: 0 },
    { words: ['tattoo'], terms: [6, 7], costMicros: 3 },
  ]);
});

test('a word of which one term converted, or may have, is no theme', () => {
  expect(findThemes([term('free hive', 5), term('free kit', 5, 1)])).toEqual([]);
  expect(findThemes([term('free hive', 5), term('free kit', 5, null)])).toEqual([]);
});

test('a word in one term only, or that cost nothing, is no theme', () => {
  expect(findThemes([term('free hive', 5), term('kit', 5)])).toEqual([]);
  expect(findThemes([term('free hive', 0), term('free kit', 0), term('???', 3)])).toEqual([]);
});

test('words that share less than half of the lesser one’s cost stay apart', () => {
  const themes = findThemes([term('free game', 2), term('free x', 5), term('game y', 3), term('game z', 9)]);
  expect(themes.map((t) => t.words)).toEqual([['game'], ['free']]);
  expect(
    findThemes([term('free game', 4), term('free x', 3), term('game y', 9)]).map((t) => t.words),
  ).toEqual([['game', 'free']]);
});
