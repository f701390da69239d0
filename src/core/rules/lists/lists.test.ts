import fc from 'fast-check';
import { expect, test } from 'vitest';
import { stops, type NegativeText } from '../../gate';
import { AT, WIDTH } from '../figures-of-facts';
import type { Judge } from '../meets';
import { columnsOf, type Fact } from '../testing';
import { tryRules } from '../trial';
import { factsOfLists, type RuledList } from './facts-of-lists';
import { settleLists } from './settle-lists';

const JUDGE: Judge = { target: { by: 'CPA', micros: 20 }, prior: null, cpcMicros: null, own: null };
const EVENINGS = { from: 0, to: 20 };
/** null: a product code. */
const TEXTS = ['bee hive', 'free hive plans', 'plans', 'free bees', null];
/** Ad group 4 is gone. */
const campaignOf = (adGroup: number) => (adGroup === 4 ? undefined : adGroup >> 1);

const anEntry: fc.Arbitrary<NegativeText> = fc.record({
  text: fc.constantFrom('free', 'plans', 'hive', 'hive bee', 'free hive plans'),
  match: fc.constantFrom('broad', 'phrase', 'exact'),
});
const aList = fc.record({ entries: fc.array(anEntry, { maxLength: 3 }), hungOn: fc.subarray([0, 1]) });
const aFact = fc.record({
  ...{ term: fc.nat(TEXTS.length - 1), day: fc.nat(20), adGroup: fc.nat(4) },
  ...{ clicks: fc.nat(9), costMicros: fc.nat(50), conversions: fc.nat(2) },
});
type AList = { entries: NegativeText[]; hungOn: number[] };
const ruled = ({ entries, hungOn }: AList): RuledList => ({
  entries,
  mayHangOn: (campaignId) => !hungOn.includes(campaignId),
});
const isHeld = ({ entries }: AList, term: number) =>
  TEXTS[term] !== null && entries.some((entry) => stops(entry, TEXTS[term]!));

/** What a list would stop on a campaign, said plainly. */
const plainly = (facts: readonly Fact[], list: AList, campaignId: number): Fact[] =>
  facts
    .filter((one) => campaignOf(one.adGroup) === campaignId && isHeld(list, one.term))
    .toSorted((a, b) => a.day - b.day);

const ground = { campaignOf, textOf: (term: number) => TEXTS[term]! };

test('what lists would stop where they do not hang is what their entries stop there', () => {
  fc.assert(
    fc.property(
      fc.array(aFact, { maxLength: 40 }),
      fc.array(aList, { maxLength: 3 }),
      fc.option(fc.constantFrom('free hive plans', 'plans')),
      (facts, lists, stopped) => {
        const isStopped = (text: string, adGroup: number) => text === stopped && adGroup === 1;
        const found = factsOfLists(columnsOf(facts), lists.map(ruled), { ...ground, isStopped });
        const open = facts.filter(
          ({ term, adGroup }) => TEXTS[term] === null || !isStopped(TEXTS[term]!, adGroup),
        );
        const said = found.unhung.map(({ list, campaignId }, id) => {
          const rows = [...found.facts.termId.keys()].filter((f) => found.facts.termId[f] === id);
          return {
            ...{ list, campaignId, days: rows.map((f) => found.facts.day[f]) },
            ...{ clicks: sum(rows.map((f) => found.facts.figures[WIDTH * f + AT.clicks]!)) },
            begun: found.facts.begunOn!(id),
          };
        });
        const expected = lists.flatMap((list, place) =>
          [0, 1].flatMap((campaignId) => {
            const rows = list.hungOn.includes(campaignId) ? [] : plainly(open, list, campaignId);
            if (rows.length === 0) return [];
            const there = facts.filter((one) => campaignOf(one.adGroup) === campaignId);
            return [
              {
                ...{ list: place, campaignId, days: rows.map(({ day }) => day) },
                ...{
                  clicks: sum(rows.map(({ clicks }) => clicks)),
                  begun: Math.min(...there.map(({ day }) => day)),
                },
              },
            ];
          }),
        );
        const inOrder = (some: typeof expected) =>
          some.toSorted((a, b) => a.list - b.list || a.campaignId - b.campaignId);
        expect(inOrder(said.filter(({ days }) => days.length > 0) as typeof expected)).toEqual(
          inOrder(expected),
        );
      },
    ),
  );
});

test('a list that is hung saves and loses what it stops there later, what two lists stop once', () => {
  fc.assert(
    fc.property(fc.array(aFact, { maxLength: 40 }), fc.array(aList, { maxLength: 3 }), (facts, lists) => {
      const unhung = factsOfLists(columnsOf(facts), lists.map(ruled), ground);
      const rule = {
        ...{ when: [{ of: 'clicks' as const, is: 'at least' as const, value: 8 }], adGroups: null },
        ...{ lookBack: { days: 9, lagDays: 1 }, everyDays: 1, terms: null, keywords: null, openOn: null },
      };
      const [plain] = tryRules(unhung.facts, [rule], EVENINGS, () => JUDGE);
      const trial = settleLists(plain!, unhung, { evenings: EVENINGS, judgeOf: () => JUDGE });
      const taken = new Set<Fact>();
      for (const stop of trial.stopped.toSorted((a, b) => a.day - b.day || a.termId - b.termId)) {
        const { list, campaignId } = unhung.unhung[stop.termId]!;
        const later = plainly(facts, lists[list]!, campaignId).filter(
          (one) => one.day > stop.day && !taken.has(one),
        );
        later.forEach((one) => taken.add(one));
        expect(stop.savedMicros).toBe(sum(later.map(({ costMicros }) => costMicros)));
        expect(stop.lostConversions).toBe(sum(later.map(({ conversions }) => conversions)));
      }
      expect(sum([...trial.savedMicros])).toBe(sum([...taken].map(({ costMicros }) => costMicros)));
      expect(sum([...trial.lostMicros])).toBe(20 * sum([...taken].map(({ conversions }) => conversions)));
      expect(trial.stopped.map(({ termId, day }) => [termId, day])).toEqual(
        plain!.stopped.map(({ termId, day }) => [termId, day]),
      );
    }),
  );
});

const sum = (numbers: readonly number[]) => numbers.reduce((all, one) => all + one, 0);
