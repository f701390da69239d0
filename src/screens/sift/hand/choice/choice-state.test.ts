import { describe, expect, test } from 'vitest';
import { noFigures, type Place, textOfChosen } from '@/core';
import type { MatchChoice, PlaceChoice } from '@/contracts/hand';
import { matchInHand, nextMatch, nextPlace, placeInHand, sortPlaces, togglePosition } from './choice-state';

const line = { words: ['free', 'hive', 'plans', 'pdf'] };

describe('choosing words', () => {
  test('a word chosen twice is let go', () => {
    expect(togglePosition([2], 0)).toEqual([0, 2]);
    expect(togglePosition([0, 2], 2)).toEqual([0]);
  });

  test.each([
    [[], null, 'exact', 'free hive plans pdf'],
    [[0], null, 'phrase', 'free'],
    [[1, 2], null, 'phrase', 'hive plans'],
    [[0, 2], null, 'broad', 'free plans'],
    [[0, 2], 'phrase', 'broad', 'free plans'],
    [[0], 'broad', 'broad', 'free'],
    [[0], 'exact', 'exact', 'free hive plans pdf'],
  ] as const)('%j with %s turned to: %s “%s”', (positions, match, inHand, text) => {
    const chosen = { positions, match };
    expect(matchInHand(chosen, 'phrase')).toBe(inHand);
    expect(textOfChosen(line.words, chosen.positions, matchInHand(chosen, 'phrase'))).toBe(text);
  });

  test('turning the match type leaves out phrase for words that stand apart', () => {
    expect(nextMatch('phrase', [0])).toBe('broad');
    expect(nextMatch('exact', [0, 1])).toBe('phrase');
    expect(nextMatch('exact', [0, 2])).toBe('broad');
  });
});

describe('the place', () => {
  const at = (place: Place): PlaceChoice => ({
    place,
    name: '',
    ...{ note: null, heed: null },
    weight: { terms: 1, ...noFigures() },
    touched: [],
    protectedTerms: { count: 0, first: [] },
    isThere: false,
    isSafe: true,
    coveredBy: null,
  });
  const [group, campaign, list, account] = [
    at({ kind: 'adGroup', id: '1' }),
    at({ kind: 'campaign', id: '2' }),
    at({ kind: 'list', id: '7' }),
    at({ kind: 'account', id: null }),
  ];
  const choice: MatchChoice = {
    match: 'phrase',
    text: 'free',
    refusal: null,
    places: [group, campaign, list, account],
  };

  test('is the one that is wanted, each time the term’s own', () => {
    expect(placeInHand(choice, { kind: 'adGroup', listId: null })).toBe(group);
    expect(placeInHand(choice, { kind: 'list', listId: '7' })).toBe(list);
  });

  test('falls back to the campaign where none is wanted, or the list is gone', () => {
    expect(placeInHand(choice, null)).toBe(campaign);
    expect(placeInHand(choice, { kind: 'list', listId: '9' })).toBe(campaign);
  });

  test('the proposed one and the last one used come first, each once', () => {
    const proposed = { kind: 'list' as const, listId: '7' };
    expect(sortPlaces(choice.places, proposed, { kind: 'account', listId: null })).toEqual({
      ...{ likely: [list, account], ran: [group, campaign], rest: [] },
    });
    expect(sortPlaces(choice.places, proposed, proposed).likely).toEqual([list]);
  });

  test('turns round through all places, the likely ones first', () => {
    const sorted = sortPlaces(choice.places, { kind: 'list', listId: '7' }, null);
    expect(nextPlace(sorted, list)).toEqual({ kind: 'adGroup', listId: null });
    expect(nextPlace(sorted, account)).toEqual({ kind: 'list', listId: '7' });
    expect(nextPlace({ likely: [], ran: [], rest: [] }, undefined)).toBeUndefined();
  });
});
