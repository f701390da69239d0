import { randomBinomial, randomLcg } from 'd3';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { clicksToCome, priorOfGroup } from './clicks-to-come';
import { comesBack, takersOf } from './comes-back';
import { learnHabits, type Habits } from './habits';
import { fitShared, sharedUnseen, type Tally } from './shared-queries';

/** Rows of a history, said shortly: text, ad group, source, days, impressions. */
type Row = [text: number, adGroup: number, source: number, days: number, impressions: number];
const learn = (rows: readonly Row[], named: (text: number) => readonly number[] = () => []) =>
  learnHabits(
    {
      textOf: rows.map(([text]) => text),
      adGroupOf: rows.map(([, adGroup]) => adGroup),
      sourceOf: rows.map(([, , source]) => source),
      days: rows.map(([, , , days]) => days),
      impressions: rows.map(([, , , , impressions]) => impressions),
    },
    named,
  );

/** How ad group `adGroup` shares the queries of a source. */
const habitOf = (habits: Habits, source: number, adGroup: number) =>
  habits.beside(source).find((one) => one.adGroup === adGroup);

/** Forty queries of keyword 7 in ad group 1; of the first of them some ran in ad group 2 as well. */
const shared = (beside: number): Row[] =>
  Array.from({ length: 40 }, (_, text): Row[] => [
    [text, 1, 7, 20, 200],
    ...(text < beside ? [[text, 2, 8, 10, 100] as Row] : []),
  ]).flat();

describe('habits', () => {
  test('the more queries of a source ran beside, the likelier another one does', () => {
    const shares = [4, 12, 30].map((beside) => habitOf(learn(shared(beside)), 7, 2)!.others.share);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares[0]).toBeLessThan(0.2);
    expect(shares[2]).toBeGreaterThan(0.6);
  });

  test('nothing speaks for an ad group that shares no query, unless it names the query', () => {
    const habits = learn(shared(10));
    expect(habitOf(habits, 7, 3)).toBeUndefined();
    expect(habits.usual.share).toBeGreaterThan(0);
  });

  test('queries that an ad group names are told apart from those that it does not', () => {
    const habits = learn(shared(10), (text) => (text < 10 ? [2] : []));
    expect(habitOf(habits, 7, 2)!.named.share).toBeGreaterThan(0.8);
    expect(habitOf(habits, 7, 2)!.others.share).toBeLessThan(0.1);
  });

  test('how well queries are seen beside is what they were seen there', () => {
    const rows = Array.from({ length: 60 }, (_, text): Row[] => [
      [text, 1, 7, 20, 400],
      [text, 2, 8, 10, 100],
    ]).flat();
    expect(habitOf(learn(rows), 7, 2)!.others.visibility).toBeCloseTo(0.5, 1);
  });

  test('an unseen query is the less likely shared, the longer it ran without', () => {
    const habit = { share: 0.5, pull: 0.3 };
    const byDays = [0, 1, 5, 20].map((days) => sharedUnseen(habit, days));
    expect(byDays[0]).toBe(0.5);
    expect(byDays).toEqual([...byDays].sort((a, b) => b - a));
    expect(byDays[3]).toBeLessThan(0.01);
  });

  test('the fit finds what made the data, although half of what is shared was never seen', () => {
    const next = randomLcg(0.42);
    const tally: Tally = { queries: 0, byDays: new Map(), seen: [] };
    for (let query = 0; query < 5_000; query++) {
      const there = next() < 0.6 ? randomBinomial.source(next)(3, 0.2)() : 0;
      const here = 3 - there;
      tally.queries += 1;
      tally.byDays.set(here, (tally.byDays.get(here) ?? 0) + 1);
      if (there > 0) tally.seen.push({ there, here });
    }
    expect(tally.seen.length / tally.queries).toBeCloseTo(0.6 * (1 - 0.8 ** 3), 1); // 0.29
    const { share, pull } = fitShared(tally, { share: 0.3, pull: 0.3 });
    expect(share).toBeGreaterThan(0.5);
    expect(share).toBeLessThan(0.7);
    expect(pull).toBeCloseTo(0.2, 1);
  });
});

describe('what comes back', () => {
  const isOpen = () => true;

  test('a text that ran elsewhere comes back there; one that is closed there does not', () => {
    const habits = learn(shared(10));
    const takers = takersOf(habits, {
      ...{ from: [{ source: 7, days: 20 }], ran: [{ adGroup: 2, days: 10 }], named: [] },
    });
    const [back] = comesBack(takers, isOpen);
    expect(back).toMatchObject({ adGroup: 2, isSeen: true });
    expect(back!.share).toBeCloseTo(1, 1);
    expect(comesBack(takers, () => false)).toEqual([]);
  });

  test('a text that ran nowhere else comes back as queries of its keyword did', () => {
    const stop = { from: [{ source: 7, days: 1 }], ran: [], named: [] };
    const [few] = comesBack(takersOf(learn(shared(4)), stop), isOpen);
    const [many] = comesBack(takersOf(learn(shared(30)), stop), isOpen);
    expect(few).toMatchObject({ adGroup: 2, isSeen: false });
    expect(few!.share).toBeLessThan(many!.share);
    expect(many!.share).toBeLessThan(1);
  });

  test('no share is negative, none is of a closed ad group, each stands once, and all together bring back at most what the best place would', () => {
    const aRow = fc
      .tuple(fc.nat(5), fc.nat(3), fc.integer({ min: 1, max: 30 }), fc.nat(300))
      .map(([text, adGroup, days, impressions]): Row => [text, adGroup, 10 + adGroup, days, impressions]);
    const rows = fc
      .uniqueArray(aRow, { maxLength: 14, selector: ([text, adGroup]) => `${text} ${adGroup}` })
      .map((all) => all.toSorted((a, b) => a[0] - b[0] || a[1] - b[1]));
    fc.assert(
      fc.property(
        rows.filter((all) => all.length > 0),
        fc.nat(3),
        fc.array(fc.nat(3), { maxLength: 2 }),
        (all, closed, named) => {
          const habits = learn(all, () => named);
          const [text] = all[0]!;
          const of = all.filter(([t]) => t === text);
          const from = of.filter(([, g]) => g === of[0]![1]);
          const takers = takersOf(habits, {
            from: from.map(([, , source, days]) => ({ source, days })),
            ran: of.filter((r) => !from.includes(r)).map(([, adGroup, , days]) => ({ adGroup, days })),
            named,
          });
          const back = comesBack(takers, (g) => g !== closed && g !== of[0]![1]);
          expect(back.every(({ share }) => share >= 0)).toBe(true);
          expect(back.map(({ adGroup }) => adGroup)).not.toContain(closed);
          expect(new Set(back.map(({ adGroup }) => adGroup)).size).toBe(back.length);
          const best = Math.max(
            0,
            ...back.map(
              ({ adGroup }) => (habitOf(habits, from[0]![2], adGroup)?.named ?? habits.usual).visibility,
            ),
          );
          expect(back.reduce((sum, { share }) => sum + share, 0)).toBeLessThanOrEqual(best + 1e-9);
        },
      ),
    );
  });
});

describe('clicks to come', () => {
  const prior = { alpha: 1, beta: 19 };

  test('lie between what was seen and what the account usually brings', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (n, part) => {
          const clicks = Math.round(n * part);
          const usual = 0.05 * n;
          const toCome = clicksToCome(prior, { impressions: n, clicks });
          expect(toCome).toBeGreaterThanOrEqual(Math.min(clicks, usual) - 1e-9);
          expect(toCome).toBeLessThanOrEqual(Math.max(clicks, usual) + 1e-9);
        },
      ),
    );
  });

  test('of terms that are seldom clicked together stay seldom, of a lucky one alone do not', () => {
    const many = priorOfGroup(prior, { impressions: 50_000, clicks: 500 });
    expect(many.alpha / (many.alpha + many.beta)).toBeCloseTo(0.01, 2);
    expect(many.alpha + many.beta).toBeCloseTo(20);
    const alone = priorOfGroup(prior, { impressions: 40, clicks: 8 });
    expect(clicksToCome(alone, { impressions: 40, clicks: 8 })).toBeLessThan(7);
  });

  test('are those seen where nothing is known of impressions', () => {
    expect(clicksToCome(prior, { impressions: null, clicks: 4 })).toBe(4);
    expect(clicksToCome(prior, { impressions: 2, clicks: 4 })).toBe(4);
  });
});
