import { describe, expect, test } from 'vitest';
import { changeKey, dependentsOf, describeChange } from './about-change';
import type { Change } from './change';
import { checkNegative, USUAL_LIMITS } from './limits';
import { productCodeTest } from './product-codes';

const SOME: Change[] = [
  { kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'account', id: null } },
  { kind: 'remove negative', text: 'free', match: 'exact', place: { kind: 'list', id: '4' } },
  { kind: 'make list', listId: 'new:a', name: 'Jobs' },
  { kind: 'remove list', listId: '4', name: 'Jobs' },
  { kind: 'hang list', listId: '4', campaignId: '9' },
  { kind: 'take down list', listId: '4', campaignId: null },
  { kind: 'rename list', listId: '4', name: 'Careers', was: 'Jobs' },
  { kind: 'add placement', address: 'films.example', listId: '4' },
  { kind: 'remove placement', address: 'films.example', listId: '4' },
];

describe('a change', () => {
  test('the key tells place, match type and text apart, but not spelling', () => {
    const [add] = SOME as [Extract<Change, { kind: 'add negative' }>];
    expect(changeKey({ ...add, text: ' FREE! ' })).toBe(changeKey(add));
    expect(changeKey({ ...add, match: 'exact' })).not.toBe(changeKey(add));
    expect(changeKey({ ...add, place: { kind: 'campaign', id: '1' } })).not.toBe(changeKey(add));
  });

  test('reads as a sentence', () => {
    const names = {
      campaign: (id: string) => `C${id}`,
      adGroup: () => undefined,
      list: (id: string) => `L${id}`,
      currency: 'EUR',
    };
    expect(SOME.map((change) => describeChange(change, names))).toEqual([
      'Stop “free” (broad) in the whole account',
      'Let “free” (exact) through again in list L4',
      'Make the list Jobs',
      'Remove the list Jobs',
      'Hang L4 on C9',
      'Take L4 down from the whole account',
      'Rename the list Jobs to Careers',
      'Shut out films.example in list L4',
      'Let films.example show our ads again in list L4',
    ]);
  });
});

describe('checkNegative', () => {
  const code = productCodeTest('LK-\\d{4}-[SML]');
  test.each([
    ['bee suit', undefined],
    ['?!', 'no word'],
    ['', 'no word'],
    ['a b c d e f g h i j k l', undefined],
    ['a b c d e f g h i j k l m', 'too many words'],
    ['x'.repeat(100), undefined],
    ['x'.repeat(101), 'too long'],
    ['𝒳'.repeat(100), undefined],
    [' lk-2041-s ', 'product code'],
    ['lk-2041-s hive', undefined],
  ])('%j: %s', (text, refusal) => {
    expect(checkNegative({ text, match: 'exact' }, USUAL_LIMITS, code)?.code).toBe(refusal);
  });

  test('without a pattern nothing is a code, and a pattern always speaks of the whole term', () => {
    expect(productCodeTest(null)('LK-2041-S')).toBe(false);
    expect(productCodeTest('a|b')('ab')).toBe(false);
  });
});

describe('what can not stand without what is taken out', () => {
  const campaign: Change = { kind: 'add campaign', name: 'Spring', budgetMicros: 1_000_000 };
  const adGroup: Change = { kind: 'add ad group', campaign: 'Spring', name: 'Kits' };
  const elsewhere: Change = { ...adGroup, campaign: 'Autumn' };
  const keyword = (of: string): Change => ({
    ...{ kind: 'add keyword', campaign: of, adGroup: 'Kits', text: 'oak kit', match: 'exact', bidMicros: 1 },
  });
  const list: Change = { kind: 'make list', listId: 'new:a', name: 'Jobs' };
  const hung: Change = { kind: 'hang list', listId: 'new:a', campaignId: '9' };
  const all = [campaign, adGroup, elsewhere, keyword('Spring'), keyword('Autumn'), list, hung];

  test('falls with it, down to the keywords; the rest stays', () => {
    expect(dependentsOf([campaign], all)).toEqual([adGroup, keyword('Spring')]);
    expect(dependentsOf([elsewhere], all)).toEqual([keyword('Autumn')]);
    expect(dependentsOf([list], all)).toEqual([hung]);
    expect(dependentsOf([hung, all[3]!], all)).toEqual([]);
  });
});
