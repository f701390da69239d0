import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stops, type NegativeText, type PlacedNegative } from '../gate';
import { aNegative, aText } from '../gate/testing';
import { compileLeaks, type LanesGround, type LeakCause } from './leaks';
import { compileLanes, type Tier } from './tiers';
import { aPlan } from './testing';

const PLAN: Tier[] = [
  { id: 'all', entryTerms: [] },
  { id: 'makers', entryTerms: ['pellwright'] },
  { id: 'numbers', entryTerms: ['no 7'] },
];

/** A ground where these negatives stand in the tiers. */
function ground(
  standing: readonly (readonly NegativeText[])[],
  idle: LanesGround['idle'] = () => null,
): LanesGround {
  const placed = standing.map((negatives, tier) =>
    negatives.map((negative, i): PlacedNegative => ({
      ...{ ...negative, id: `n${tier}-${i}` },
      place: { kind: 'campaign', id: `c${tier}` },
    })),
  );
  return { stoppers: (tier, query) => placed[tier]!.filter((negative) => stops(negative, query)), idle };
}
const phrase = (text: string): NegativeText => ({ text, match: 'phrase' });
const explain = (standing: NegativeText[][], query: string, served: number, idle?: LanesGround['idle']) =>
  compileLeaks(compileLanes(PLAN), ground(standing, idle))(query, served);
const WHOLE = [[phrase('pellwright'), phrase('no 7')], [phrase('no 7')], []];

describe('a query that another tier served leaks because', () => {
  test('the entry term is missing as a negative there, and in what other tiers', () => {
    expect(explain([[phrase('pellwright')], [], []], 'smoker no 7', 0)).toEqual({
      ...{ cause: 'negative missing', tiers: [0, 1] },
      entryTerm: { text: 'no 7', match: 'phrase', tier: 2 },
    });
    expect(explain([[phrase('pellwright')], [], []], 'pellwright no 7', 1)).toMatchObject({ tiers: [1] });
  });

  test('a negative stops it in its own tier', () => {
    const cheap: NegativeText = { text: 'cheap', match: 'broad' };
    expect(explain([[cheap], WHOLE[1]!, []], 'cheap hive', 2)).toEqual({
      ...{ cause: 'negative in the way', negativeIds: ['n0-0'] },
    });
    expect(explain([WHOLE[0]!, [...WHOLE[1]!, phrase('smoker')], []], 'pellwright smoker', 2)).toEqual({
      ...{ cause: 'negative in the way', negativeIds: ['n1-1'] },
    });
  });

  test('an entry term is missing: one text stops it in every tier before the one that served it', () => {
    const missing = [[...WHOLE[0]!, phrase('Oast')], [...WHOLE[1]!, phrase('oast')], []];
    expect(explain(missing, 'oast veil', 2)).toEqual({
      ...{ cause: 'entry term missing', tier: 2, entryTerm: { text: 'oast', match: 'phrase' } },
    });
    expect(explain([[phrase('oast'), phrase('oast veil')], [], []], 'oast veil', 1)).toMatchObject({
      entryTerm: { text: 'oast veil' },
    });
  });

  test('its own tier could not serve: it was paused, or its budget ran dry', () => {
    expect(explain(WHOLE, 'hive', 1, (tier) => (tier === 0 ? 'ran dry' : null))).toEqual({
      cause: 'ran dry',
    });
    expect(explain([[], [], []], 'hive', 1, () => 'paused')).toEqual({ cause: 'paused' });
  });

  test('nothing that can be seen: it is mended by now, or its own tier did not take it', () => {
    expect(explain(WHOLE, 'pellwright', 0)).toEqual({ cause: 'mended' });
    expect(explain(WHOLE, 'pellwright', 0, () => 'ran dry')).toEqual({ cause: 'mended' });
    expect(explain(WHOLE, 'hive', 1)).toEqual({ cause: 'not taken' });
  });
});

test('a query that its own tier served is no leak', () => {
  expect(explain(WHOLE, 'pellwright', 1)).toBeNull();
  expect(explain([[], [], []], 'hive', 0)).toBeNull();
});

/** What mends a leak, done to the plan and to what stands. */
function mend(cause: LeakCause, tiers: Tier[], standing: NegativeText[][]): void {
  switch (cause.cause) {
    case 'negative missing':
      for (const tier of cause.tiers) standing[tier]!.push(cause.entryTerm);
      return;
    case 'negative in the way':
      standing.forEach((negatives, tier) => {
        standing[tier] = negatives.filter((_, i) => !cause.negativeIds.includes(`n${tier}-${i}`));
      });
      return;
    case 'entry term missing':
      tiers[cause.tier] = {
        ...tiers[cause.tier]!,
        entryTerms: [...tiers[cause.tier]!.entryTerms, cause.entryTerm.text],
      };
      return;
    case 'paused':
    case 'ran dry':
    case 'mended':
    case 'not taken':
      throw new Error(`nothing mends “${cause.cause}”`);
  }
}

test('campaigns that are asked by priority leak for what the account shows, and each mend brings a query home', () => {
  const some = fc.tuple(
    aPlan().map((tiers) => tiers.map((tier): Tier => ({ ...tier, entryMatch: 'phrase' }))),
    fc.array(fc.array(aNegative(2), { maxLength: 3 }), { minLength: 4, maxLength: 4 }),
    aText(),
  );
  fc.assert(
    fc.property(some, ([plan, negatives, query]) => {
      const tiers = [...plan];
      const standing = negatives.slice(0, plan.length).map((all) => [...all]);
      for (let mends = 0; mends <= 2 * plan.length; mends++) {
        const there = ground(standing);
        const served = tiers.findIndex((_, tier) => there.stoppers(tier, query).length === 0);
        if (served < 0) return; // all tiers stop it: nobody serves it, and nothing leaks
        const lanes = compileLanes(tiers);
        const cause = compileLeaks(lanes, there)(query, served);
        expect(cause === null).toBe(lanes.route(query) === served);
        if (!cause) return;
        mend(cause, tiers, standing);
      }
      expect.fail('the query never comes home');
    }),
  );
});
