import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate } from './account-gate';
import { compileGate } from './compile-gate';
import { covers } from '../covers';
import { MATCH_TYPES, type AccountShape, type NegativeText, type Place } from '../negative';
import { stops } from '../stops';
import { aNegative, anAccount, aText, aTextOfSharedBits, MANY_WORDS } from '../testing';

const runs = { numRuns: 2_000 };

const WORDS_OF_MANY = MANY_WORDS.slice(0, 16);
/** A query that holds the text of every negative of `aStopperOf`. */
const EVERY_WORD = WORDS_OF_MANY.join(' ');
const aStopperOf = (i: number): NegativeText => ({
  text: WORDS_OF_MANY.slice(i % 16, (i % 16) + 1 + (i % 3)).join(' '),
  match: i % 2 === 0 ? 'broad' : 'phrase',
});

describe('compileGate', () => {
  test('agrees with the readable rule', () => {
    fc.assert(
      fc.property(fc.array(aNegative(), { maxLength: 12 }), aText(), (negatives, query) => {
        const gate = compileGate(negatives);
        const expected = negatives.flatMap((negative, i) => (stops(negative, query) ? [i] : []));
        expect(gate.stoppers(query)).toEqual(expected);
        expect(gate.isStopped(query)).toBe(expected.length > 0);
        negatives.forEach(({ text }, i) => expect(gate.stoppersOfTextOf(i)).toEqual(gate.stoppers(text)));
      }),
      runs,
    );
  });

  test('agrees with it where words share bits', () => {
    const known: NegativeText[] = MANY_WORDS.map((text) => ({ text, match: 'exact' }));
    const negative = fc.record({ text: aTextOfSharedBits(3), match: fc.constantFrom(...MATCH_TYPES) });
    fc.assert(
      fc.property(fc.array(negative, { maxLength: 8 }), aTextOfSharedBits(), (some, query) => {
        const negatives = [...known, ...some];
        const expected = negatives.flatMap((negative, i) => (stops(negative, query) ? [i] : []));
        expect(compileGate(negatives).stoppers(query)).toEqual(expected);
      }),
      { numRuns: 1_000 },
    );
  });

  test.each([63, 64, 65, 128, 129, 500])('names all of %i that match, the first time it is asked', (many) => {
    const negatives = Array.from({ length: many }, (_, i) => aStopperOf(i));
    const all = negatives.map((_, i) => i);
    expect(compileGate(negatives).stoppers(EVERY_WORD)).toEqual(all);
    const broad = negatives.map(({ text }): NegativeText => ({ text, match: 'broad' }));
    const ofOwnText = [...broad, { text: EVERY_WORD, match: 'exact' as const }];
    expect(compileGate(ofOwnText).stoppersOfTextOf(many)).toEqual([...all, many]);
    const account = compileAccountGate({
      campaigns: [{ id: 'c', adGroups: [{ id: 'g' }] }],
      lists: [],
      negatives: negatives.map((n, i) => ({ ...n, id: `n${i}`, place: { kind: 'account', id: null } })),
    });
    expect(account.stoppers(EVERY_WORD, 'g')).toEqual(negatives.map((_, i) => `n${i}`));
  });

  test('agrees with the readable rule where hundreds match', () => {
    const several = fc.array(fc.tuple(fc.nat(15), fc.constantFrom(...MATCH_TYPES)), { maxLength: 700 });
    fc.assert(
      fc.property(several, fc.subarray(WORDS_OF_MANY), (drawn, words) => {
        const negatives = drawn.map(([at, match]): NegativeText => ({ ...aStopperOf(at), match }));
        const gate = compileGate(negatives);
        for (const query of [words.join(' '), EVERY_WORD]) {
          const expected = negatives.flatMap((negative, i) => (stops(negative, query) ? [i] : []));
          expect(gate.stoppers(query)).toEqual(expected);
        }
      }),
      { numRuns: 200 },
    );
  });

  test('keeps the index of a negative without a word, and names it', () => {
    const gate = compileGate([
      { text: '??', match: 'broad' },
      { text: 'hive', match: 'broad' },
    ]);
    expect(gate.wordless).toEqual([0]);
    expect(gate.stoppers('hive')).toEqual([1]);
  });

  test('words that are names of built-in properties are only words', () => {
    const gate = compileGate([{ text: 'constructor __proto__', match: 'broad' }]);
    expect(gate.stoppers('__proto__ x constructor')).toEqual([0]);
    expect(gate.stoppers('tostring')).toEqual([]);
  });
});

/** Rules 2.3 and 2.4, word for word. */
function plainStoppers(account: AccountShape, query: string, adGroupId: string): string[] {
  const campaign = account.campaigns.find((c) => c.adGroups.some((g) => g.id === adGroupId))!;
  const inForce = ({ kind, id }: Place) => {
    if (kind === 'account') return true;
    if (kind === 'campaign') return id === campaign.id;
    if (kind === 'adGroup') return id === adGroupId;
    const hung = account.lists.find((list) => list.id === id)?.hungOn ?? [];
    return hung === 'account' || hung.includes(campaign.id);
  };
  return account.negatives.filter((n) => inForce(n.place) && stops(n, query)).map((n) => n.id);
}

describe('compileAccountGate', () => {
  test('agrees with the readable rule in every ad group', () => {
    fc.assert(
      fc.property(anAccount(), aText(), (account, query) => {
        const gate = compileAccountGate(account);
        for (const id of ['g1', 'g2', 'g3'])
          expect(gate.stoppers(query, id)).toEqual(plainStoppers(account, query, id));
      }),
      runs,
    );
  });

  test('after additions, removals, hanging and taking down it answers like a gate compiled anew', () => {
    fc.assert(
      fc.property(anAccount(), anAccount(), aText(), fc.nat(9), (before, extra, query, drop) => {
        const gate = compileAccountGate(before);
        const added = extra.negatives.map((n) => ({ ...n, id: `x${n.id}` }));
        added.forEach((n) => gate.add(n));
        const dropped = before.negatives[drop]?.id;
        if (dropped) gate.remove(dropped);
        gate.hang('l1', 'c1');
        gate.takeDown('l1', 'c2');
        gate.takeDown('l2', null);

        const [one, two] = before.lists;
        const anew: AccountShape = {
          campaigns: before.campaigns,
          lists: [
            { id: 'l1', hungOn: one!.hungOn === 'account' ? 'account' : ['c1'] },
            { id: 'l2', hungOn: two!.hungOn === 'account' ? [] : two!.hungOn },
          ],
          negatives: [...before.negatives.filter((n) => n.id !== dropped), ...added],
        };
        for (const id of ['g1', 'g2', 'g3'])
          expect(gate.stoppers(query, id)).toEqual(plainStoppers(anew, query, id));
      }),
      runs,
    );
  });

  test('an unknown ad group and a taken id are mistakes of the caller', () => {
    const gate = compileAccountGate({ campaigns: [], lists: [], negatives: [] });
    gate.add({ id: 'n', text: 'bee', match: 'broad', place: { kind: 'account', id: null } });
    expect(() => gate.stoppers('bee', 'g9')).toThrow(RangeError);
    expect(() =>
      gate.add({ id: 'n', text: 'x', match: 'broad', place: { kind: 'account', id: null } }),
    ).toThrow(RangeError);
    expect(() => gate.remove('m')).toThrow(RangeError);
  });
});

describe('covers', () => {
  test('is what it promises: whatever the covered one stops, the other stops', () => {
    fc.assert(
      fc.property(aNegative(), aNegative(), aText(6), (a, b, query) => {
        if (covers(a, b) && stops(b, query)) expect(stops(a, query)).toBe(true);
      }),
      { numRuns: 5_000 },
    );
  });

  test('misses nothing: where it says no, some query passes one and is stopped by the other', () => {
    fc.assert(
      fc.property(aNegative(), aNegative(), (a, b) => {
        if (covers(a, b) || !stops(b, b.text)) return;
        // The narrowest queries that b stops: its own words, and (broad) in reverse or with strangers between.
        const own = b.text.split(' ');
        const queries = [b.text];
        if (b.match === 'broad')
          queries.push([...own].reverse().join(' '), own.join(' zz '), [...new Set(own)].join(' zz '));
        if (b.match !== 'exact') queries.push(`zz ${b.text} zz`);
        expect(queries.some((q) => stops(b, q) && !stops(a, q))).toBe(true);
      }),
      runs,
    );
  });

  test('is reflexive and transitive', () => {
    fc.assert(
      fc.property(aNegative(2), aNegative(2), aNegative(2), (a, b, c) => {
        if (stops(a, a.text)) expect(covers(a, a)).toBe(true);
        if (covers(a, b) && covers(b, c)) expect(covers(a, c)).toBe(true);
      }),
      { numRuns: 5_000 },
    );
  });
});
