import fc from 'fast-check';
import { group, range } from 'd3';
import { describe, expect, test } from 'vitest';
import { FIGURE_NAMES, shiftDay, type Figures } from '@/core';
import { figuresIn } from '../figure-columns';
import { textsOf } from '../sift/testing';
import { termAt } from '../window-columns';
import { dayOf, orderFacts, type Facts } from './facts';
import { sumHistory } from './sum-history';
import { sumWindow } from './sum-window';

type Fact = { day: string; term: number; adGroup: number; keyword: number } & Record<keyof Figures, number>;

const figure = fc.oneof(fc.constant(NaN), fc.integer({ min: 0, max: 1_000 }));
const aFact: fc.Arbitrary<Fact> = fc.record({
  day: fc.integer({ min: 0, max: 9 }).map((d) => shiftDay('2026-11-01', d)),
  term: fc.integer({ min: 0, max: 5 }),
  adGroup: fc.constantFrom(1, 2, 70_000), // both halves of a number take part in the order
  keyword: fc.integer({ min: 0, max: 2 }),
  ...{ impressions: figure, clicks: figure, costMicros: figure, conversions: figure, valueMicros: figure },
});
const someFacts = fc.uniqueArray(aFact, {
  maxLength: 60,
  selector: ({ day, term, adGroup, keyword }) => `${day} ${term} ${adGroup} ${keyword}`,
});

/** Ids leave gaps; the last two are a product code and what is reported without a term. */
const IDS = [3, 4, 70, 71, 66_000, 66_001];
const KINDS = [0, 0, 0, 0, 1, 3];
const UNREPORTED = 5;

function asFacts(facts: readonly Fact[]): Facts {
  const column = (of: (fact: Fact) => number) => Int32Array.from(facts, of);
  const days = facts.map(({ day }) => day).sort();
  return orderFacts(
    {
      ...{ count: facts.length, day: column(({ day }) => dayOf(day)) },
      ...{ termId: column(({ term }) => IDS[term]!), adGroupId: column((f) => f.adGroup) },
      keywordId: column((f) => f.keyword),
      figures: Float64Array.from(facts.flatMap((fact) => FIGURE_NAMES.map((name) => fact[name]))),
    },
    {
      ...{ count: IDS.length, ids: Int32Array.from(IDS), kinds: Uint8Array.from(KINDS) },
      ...{ keys: textsOf(IDS.map((id) => `key ${id}`)), raws: textsOf(IDS.map((id) => `Käy ${id}`)) },
    },
    days.length > 0 ? { from: days[0]!, to: days.at(-1)! } : null,
  );
}

/** By the readable rule: unknown and unknown stays unknown; unknown and a number is the number. */
const sum = (facts: readonly Fact[], name: keyof Figures) =>
  facts
    .map((fact) => fact[name])
    .filter((value) => !Number.isNaN(value))
    .reduce<number | null>((total, value) => (total ?? 0) + value, null);

const inOrder = <T extends { term: number; adGroup: number; keyword?: number }>(rows: T[]) =>
  rows.sort((a, b) => a.term - b.term || a.adGroup - b.adGroup || (a.keyword ?? 0) - (b.keyword ?? 0));

describe('facts that are summed in memory', () => {
  test('a window holds the sums of each term, ad group and keyword, and its terms alone', () => {
    const aWindow = fc.tuple(fc.nat(9), fc.nat(9)).map(([a, b]) => ({
      from: shiftDay('2026-11-01', Math.min(a, b)),
      to: shiftDay('2026-11-01', Math.max(a, b)),
    }));
    fc.assert(
      fc.property(someFacts, aWindow, (facts, window) => {
        const { rows, terms, days } = sumWindow(asFacts(facts), window);
        const inside = facts.filter(({ day }) => day >= window.from && day <= window.to);
        const found = range(rows.count).map((r) => ({
          term: IDS.indexOf(terms.ids[rows.termOf[r]!]!),
          ...{ adGroup: rows.adGroupId[r]!, keyword: rows.keywordId[r]! },
          ...{ lastDay: rows.lastDay[r]!, figures: figuresIn(rows.figures, r) },
        }));
        const expected = [...group(inside, (f) => `${f.term} ${f.adGroup} ${f.keyword}`).values()].map(
          (of) => ({
            ...{ term: of[0]!.term, adGroup: of[0]!.adGroup, keyword: of[0]!.keyword },
            lastDay: Math.max(...of.map(({ day }) => dayOf(day))),
            figures: Object.fromEntries(FIGURE_NAMES.map((name) => [name, sum(of, name)])),
          }),
        );
        expect(found).toEqual(inOrder(expected));
        const used = IDS.filter((_, term) => inside.some((fact) => fact.term === term));
        expect([...terms.ids]).toEqual(used);
        expect(used.map((_, t) => [termAt(terms, t).key, termAt(terms, t).raw])).toEqual(
          used.map((id) => [`key ${id}`, `Käy ${id}`]),
        );
        const returned = (term: number) =>
          (sum(
            inside.filter((fact) => fact.term === term),
            'conversions',
          ) ?? 0) > 0;
        expect(days).toEqual(
          [...group(inside, ({ day }) => day)]
            .map(([day, of]) => ({
              ...{ day, costMicros: sum(of, 'costMicros') ?? 0 },
              returnedMicros:
                sum(
                  of.filter(({ term }) => returned(term)),
                  'costMicros',
                ) ?? 0,
            }))
            .sort((a, b) => a.day.localeCompare(b.day)),
        );
      }),
    );
  });

  test('a history holds the sums of each term in each ad group before the lag, and what each earned in all', () => {
    fc.assert(
      fc.property(someFacts, fc.nat(4), (facts, lagDays) => {
        const { rows, terms, days, earned } = sumHistory(asFacts(facts), lagDays);
        const all = facts.filter(({ term }) => term !== UNREPORTED);
        const before = all.filter(({ day }) => day <= days!.to);
        expect(days?.to).toBe(
          facts.length > 0
            ? shiftDay(
                facts
                  .map((f) => f.day)
                  .sort()
                  .at(-1)!,
                -lagDays,
              )
            : undefined,
        );
        const known = (value: number) => (Number.isNaN(value) ? null : value);
        const found = range(rows.count).map((r) => ({
          ...{ term: rows.termOf[r]!, adGroup: rows.adGroupId[r]! },
          ...{ clicks: known(rows.clicks[r]!), conversions: known(rows.conversions[r]!) },
          ...{ costMicros: known(rows.costMicros[r]!), impressions: known(rows.impressions[r]!) },
          ...{ days: rows.days[r]!, keyword: rows.keywordId[r]! },
        }));
        const expected = [...group(before, (f) => `${f.term} ${f.adGroup}`).values()].map((of) => ({
          ...{ term: of[0]!.term, adGroup: of[0]!.adGroup },
          ...{ clicks: sum(of, 'clicks'), conversions: sum(of, 'conversions') },
          ...{ costMicros: sum(of, 'costMicros'), impressions: sum(of, 'impressions'), days: of.length },
          keyword: [...group(of, (f) => f.keyword)]
            .sort(([a], [b]) => a - b)
            .reduce((a, b) => (b[1].length > a[1].length ? b : a))[0],
        }));
        expect(found).toEqual(inOrder(expected));
        expect([...terms.ids]).toEqual(IDS.slice(0, UNREPORTED));
        expect([...earned].map(known)).toEqual(
          range(UNREPORTED).map((term) =>
            sum(
              all.filter((fact) => fact.term === term),
              'conversions',
            ),
          ),
        );
      }),
    );
  });

  test('a fact of a term that is not there is an error', () => {
    const { day, ...figures } = {
      day: '2026-11-01',
      impressions: 1,
      clicks: 1,
      costMicros: 1,
      conversions: 1,
      valueMicros: 1,
    };
    const facts = asFacts([{ day, ...figures, term: 1, adGroup: 1, keyword: 1 }]);
    const gone = { ...facts, termId: Int32Array.of(5) };
    expect(() => sumWindow(gone, { from: day, to: day })).toThrow('every fact must have a term; 5 has none');
  });
});
