import { group } from 'd3';
import { FIGURE_NAMES, fitPrior, readyRules, tryRules, type Judge, type SumCondition } from '@/core';
import type { SeedRequest } from '@/contracts/platform';
import { dayOf } from '@/server/compute/facts/facts';
import { byTermAndDay } from '@/server/compute/rules/term-facts';
import { servedDays } from '@/standins/ad-platform/clock';
import type { TruthTray } from './trays';

const WIDTH = FIGURE_NAMES.length;

/**
 * What the ready rules that stop terms by their figures find on the newest evening, each as a tray: a term is stopped in the ad groups
 * where it ran in the look-back of the rule.
 * @param days as reports show them, the newest one last
 * @param targetMicros what a conversion may cost
 * @param lagDays the newest days, of which conversions may still come
 */
export function traysOfReadyRules(
  world: SeedRequest,
  days: readonly string[],
  { targetMicros, lagDays }: { targetMicros: number; lagDays: number },
): TruthTray[] {
  const { facts, texts, adGroups } = factsOfWorld(world, days);
  const sums = sumsByTerm(facts);
  const [clicks, conversions, cost] = (['clicks', 'conversions', 'costMicros'] as const).map((name) =>
    sums.reduce((all, sum) => all + sum[name], 0),
  ) as [number, number, number];
  const judge: Judge = {
    ...{ target: { by: 'CPA', micros: targetMicros }, own: null },
    ...{ prior: fitPrior(sums), cpcMicros: cost / clicks },
  };
  const evening = dayOf(days.at(-1)!);
  return readyRules({ cvr: conversions / clicks, lagDays, hasTarget: true }).flatMap(({ name, rule }) => {
    const when = rule.when.filter((one): one is SumCondition => OF_SUMS.has(one.of));
    if (rule.about !== undefined || rule.then.do !== 'stop' || when.length < rule.when.length) return [];
    const [{ stopped }] = tryRules(
      facts,
      [
        {
          ...{ when, lookBack: rule.lookBack, everyDays: 1, openOn: null },
          ...{ terms: null, adGroups: null, keywords: null },
        },
      ],
      { from: evening, to: evening },
      () => judge,
    ) as [ReturnType<typeof tryRules>[number]];
    const found = new Set(stopped.map(({ termId }) => termId));
    const to = evening - rule.lookBack.lagDays;
    const ran = new Map<number, Set<number>>();
    for (let f = 0; f < facts.count; f++) {
      const [termId, day] = [facts.termId[f]!, facts.day[f]!];
      if (!found.has(termId) || day > to || day <= to - rule.lookBack.days) continue;
      ran.set(termId, (ran.get(termId) ?? new Set()).add(facts.adGroupId[f]!));
    }
    const stops = [...ran].flatMap(([termId, there]) =>
      Array.from(there, (g) => ({
        ...{ text: texts[termId]!, match: 'exact' as const },
        place: { kind: 'adGroup' as const, id: adGroups[g]! },
      })),
    );
    return stops.length === 0 ? [] : [{ name: `the rule “${name}”`, stops }];
  });
}

const OF_SUMS: ReadonlySet<string> = new Set([...FIGURE_NAMES, 'target', 'evidence']);

function factsOfWorld({ account, structure, queries }: SeedRequest, days: readonly string[]) {
  const numbered = queries.map((query, id) => ({ ...query, id }));
  const adGroups = structure.adGroups.map(({ id }) => id);
  const placeOf = new Map(adGroups.map((id, g) => [id, g]));
  const rows: { day: number; term: number; adGroup: number; figures: number[] }[] = [];
  for (const { day, served } of servedDays(numbered, structure, account.seed, days))
    for (const { queryId, adGroupId, impressions, clicks, conversions, costMicros } of served) {
      if (numbered[queryId]!.unreported) continue;
      rows.push({
        ...{ day: dayOf(day), term: queryId, adGroup: placeOf.get(adGroupId)! },
        figures: [impressions, clicks, costMicros, conversions[2], 0], // two days are enough for all of them
      });
    }
  const column = (of: (row: (typeof rows)[number]) => number) => Int32Array.from(rows, of);
  const facts = byTermAndDay({
    ...{ count: rows.length, day: column(({ day }) => day), termId: column(({ term }) => term) },
    ...{ adGroupId: column(({ adGroup }) => adGroup), keywordId: new Int32Array(rows.length) },
    figures: Float64Array.from(rows.flatMap(({ figures }) => figures)),
  });
  return { facts, adGroups, texts: queries.map(({ text }) => text) };
}

function sumsByTerm({ count, termId, figures }: ReturnType<typeof factsOfWorld>['facts']) {
  const at = (f: number, name: (typeof FIGURE_NAMES)[number]) =>
    figures[WIDTH * f + FIGURE_NAMES.indexOf(name)]!;
  return [...group(Array(count).keys(), (f) => termId[f]!).values()].map((of) => {
    const sum = (name: (typeof FIGURE_NAMES)[number]) => of.reduce((all, f) => all + at(f, name), 0);
    return { clicks: sum('clicks'), conversions: sum('conversions'), costMicros: sum('costMicros') };
  });
}
