import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addFigures, noFigures, stops, type Figures, type MatchType, type Place } from '@/core';
import { RETURNS, SERVED, SIFT_VIEWS, SORTS, type SiftFilters, type SiftView } from '@/contracts/sift';
import { figuresAt, keyAt } from '../window-columns';
import { findTerm, weighRows, type Workbench } from '../workbench';
import { probabilityOfMiss } from '../evidence/evidence';
import { findLines, isOverTarget } from './lines';
import { orderLines } from './order';
import { aBench, aPlace } from './testing';
import { bitsOfPlaces, findCoverer, reachOf, weighAtPlaces } from './weigh-places';

const STEERING = { steersBy: 'CPA', targetMicros: 20_000_000, targetAcos: null } as const;
const RUNS = { numRuns: 1_000 };

const someFilters: fc.Arbitrary<SiftFilters> = fc.record({
  view: fc.constantFrom(...SIFT_VIEWS),
  days: fc.constant(undefined),
  campaign: fc.constantFrom('', '', '1', '2'),
  clicks: fc.constantFrom(0, 0, 5, 20),
  returns: fc.constantFrom(...RETURNS),
  served: fc.constantFrom(...SERVED),
  trait: fc.constant('any' as const),
  evidence: fc.constantFrom('any', 'any', 'sure'),
  region: fc.constantFrom('', '', '3-25,0-1'),
  holding: fc.constantFrom('', '', 'hive', 'bee hive'),
  forms: fc.constantFrom('yes', 'no'),
  text: fc.constantFrom('', '', 'mov'),
});

/** The same, found by looking at every row: the readable rule. */
function plainLines(bench: Workbench, filters: SiftFilters, view: SiftView): Map<string, Figures> {
  const { snapshot, draft, standing, verdictOf } = bench;
  const { rows, terms, served } = snapshot;
  const lines = new Map<string, Figures>();
  for (let r = 0; r < rows.count; r++) {
    const t = rows.termOf[r]!;
    const text = keyAt(terms, t);
    const adGroup = served.adGroups[served.adGroupOf[r]!]!;
    const { match } = snapshot.keyword.get(String(rows.keywordId[r]))!;
    if (filters.campaign !== '' && adGroup.campaignId !== filters.campaign) continue;
    if (
      filters.served === 'loose'
        ? !['broad', 'automatic'].includes(match)
        : filters.served !== 'any' && match !== filters.served
    )
      continue;
    if (!text.includes(filters.text)) continue;
    const forms = filters.forms === 'yes' ? filters.holding.replace('hive', 'hives') : filters.holding;
    if (
      filters.holding !== '' &&
      ![filters.holding, forms].some((run) => stops({ text: run, match: 'phrase' }, text))
    )
      continue;
    const isStopped = draft.gate.stopCount(r) > 0;
    const open = verdictOf.get(t) ?? 'remaining';
    if ((isStopped ? (standing.stopCount(r) > 0 ? 'already' : 'stopped') : open) !== view) continue;
    const sum = lines.get(text) ?? noFigures();
    addFigures(sum, figuresAt(rows, r));
    lines.set(text, sum);
  }
  for (const [text, figures] of lines) {
    const misses = () => probabilityOfMiss(snapshot, STEERING, { term: findTerm(snapshot, text)!, figures });
    if (!passes(figures, filters) || (filters.evidence === 'sure' && !(misses() >= 0.95))) lines.delete(text);
  }
  return lines;
}

function passes(figures: Figures, { clicks, returns, region }: SiftFilters): boolean {
  const converted = figures.conversions;
  if (figures.clicks! < clicks) return false;
  if (
    region !== '' &&
    !(figures.clicks! >= 3 && figures.clicks! <= 25 && converted !== null && converted <= 1)
  )
    return false;
  const over = isOverTarget(figures, STEERING);
  return { any: true, none: converted === 0, over, either: converted === 0 || over }[returns];
}

describe('the lines of a view', () => {
  test('are those that looking at every row finds, with the same sums, in every view', () => {
    fc.assert(
      fc.property(aBench, someFilters, (bench, filters) => {
        const found = findLines(bench, filters, STEERING, null);
        const { terms } = bench.snapshot;
        const ordered = orderLines(
          bench.snapshot,
          found.lines,
          { sort: 'cost', direction: 'desc' },
          STEERING,
        );
        const lines = Array.from({ length: ordered.length }, (_, i) => ordered.at(i));
        const expected = plainLines(bench, filters, filters.view);
        expect(new Map(lines.map((l) => [keyAt(terms, l.term), l.figures]))).toEqual(expected);
        expect(found.sums.terms).toBe(expected.size);
        for (const view of SIFT_VIEWS) expect(found.counts[view]).toBe(plainLines(bench, filters, view).size);
      }),
      RUNS,
    );
  });

  test('stand in one order that every page agrees on, what is undefined last both ways', () => {
    fc.assert(
      fc.property(
        aBench,
        fc.constantFrom(...SORTS),
        fc.constantFrom('asc' as const, 'desc' as const),
        (bench, sort, direction) => {
          const filters = { ...fc.sample(someFilters, 1)[0]!, view: 'remaining', returns: 'any' } as const;
          const { lines } = findLines(bench, { ...filters, region: '', clicks: 0 }, STEERING, null);
          const ordered = orderLines(bench.snapshot, lines, { sort, direction }, STEERING);
          const all = Array.from({ length: ordered.length }, (_, i) => ordered.at(i));
          expect(new Set(all.map((l) => l.term)).size).toBe(all.length);
          const measure = ({ figures, term }: (typeof all)[number]): number | string | null =>
            sort === 'cost' || sort === 'without'
              ? sort === 'cost' || figures.conversions === 0
                ? figures.costMicros!
                : 0
              : sort === 'clicks'
                ? figures.clicks!
                : sort === 'term'
                  ? keyAt(bench.snapshot.terms, term)
                  : sort === 'target'
                    ? figures.conversions
                      ? figures.costMicros! / figures.conversions
                      : null
                    : 0;
          const values = all.map(measure);
          const known = values.filter((v) => v !== null);
          expect(values.slice(0, known.length)).toEqual(known);
          const sign = direction === 'asc' ? 1 : -1;
          for (let i = 1; i < known.length; i++)
            expect(known[i - 1]! === known[i]! || (known[i - 1]! < known[i]! ? -1 : 1) * sign <= 0).toBe(
              true,
            );
        },
      ),
      RUNS,
    );
  });
});

describe('weighing at many places', () => {
  const negative = fc.record({
    text: fc.constantFrom('hive', 'movie', 'bee hive', 'hive free'),
    match: fc.constantFrom<MatchType>('broad', 'phrase', 'exact'),
  });

  test('gives each place what weighing it alone gives', () => {
    fc.assert(
      fc.property(
        aBench,
        negative,
        fc.array(aPlace, { minLength: 1, maxLength: 40 }),
        (bench, asked, places) => {
          const { snapshot } = bench;
          const { gate } = bench.draft;
          const rows = gate.matched(asked).filter((r) => gate.stopCount(r) === 0);
          expect([...gate.openTo(asked)]).toEqual(rows);
          const weights = weighAtPlaces(
            snapshot,
            reachOf(snapshot, gate.openTo(asked)),
            bitsOfPlaces(snapshot, gate, places),
          );
          expect(weights.map((w) => w.weight)).toEqual(
            places.map((place) => weighRows(snapshot, gate.within(rows, place))),
          );
        },
      ),
      RUNS,
    );
  });

  test('a coverer stops all that the negative would, wherever that would be', () => {
    fc.assert(
      fc.property(aBench, negative, negative, aPlace, aPlace, (bench, asked, other, place, at: Place) => {
        const { gate } = bench.draft;
        const candidate = { ...other, place: at };
        if (!findCoverer(bench.snapshot, gate, [candidate], asked, place)) return;
        const reached = new Set(gate.reached(other, at));
        expect(gate.reached(asked, place).filter((r) => !reached.has(r))).toEqual([]);
      }),
      RUNS,
    );
  });
});

test('a term is found by its key', () => {
  fc.assert(
    fc.property(aBench, ({ snapshot }) => {
      for (let t = 0; t < snapshot.terms.count; t++)
        expect(findTerm(snapshot, keyAt(snapshot.terms, t))).toBe(t);
      expect(findTerm(snapshot, 'no such thing')).toBeUndefined();
    }),
    { numRuns: 100 },
  );
});
