import { codeTexts, countCodedNgrams, words } from '@/core';
import { makeAccount } from '../account';
import { normalised, openDuckDb } from '../duckdb';
import { against, count, interleaved, ms, mustAgree, timedOnce, type Line } from '../measure';

const MOST = 1_000;
const SAMPLE = 1 / 40;

const TOP = `
  with said as (select id, string_split(${normalised('text')}, ' ') as words, clicks, cost, conversions from term),
  starts as (select *, unnest(range(1, len(words) + 1)) as pos from said),
  runs as (
    select distinct id, array_to_string(words[pos : pos + n - 1], ' ') as gram, clicks, cost, conversions
      from starts cross join (select unnest([1, 2, 3, 4]) as n) where pos + n - 1 <= len(words))
  select gram, count(*)::integer, sum(clicks), sum(cost), sum(conversions) from runs
   group by gram order by 4 desc, gram limit ${MOST}`;

/** Runs of 1 to 4 words with sums, the 1,000 costliest. */
export async function benchNgrams(quick: boolean): Promise<Line[]> {
  const size = quick ? 30_000 : 600_000;
  const { terms, clicks, costMicros, conversions } = makeAccount(size, 1);
  const rows = terms.map((_, term) => ({
    ...{ term, clicks: clicks[term]!, costMicros: costMicros[term]!, conversions: conversions[term]! },
  }));
  const ours = () => countCodedNgrams(codeTexts(terms), rows, { from: 1, to: 4, most: MOST });
  const table = codeTexts(terms);
  const coded = () => countCodedNgrams(table, rows, { from: 1, to: 4, most: MOST });
  const duckDb = openDuckDb();
  const columns = {
    id: 'INTEGER',
    text: 'VARCHAR',
    clicks: 'DOUBLE',
    cost: 'DOUBLE',
    conversions: 'DOUBLE',
  } as const;
  await duckDb.fill(
    'term',
    columns,
    terms.map((text, t) => [t, text, clicks[t]!, costMicros[t]!, conversions[t]!]),
  );
  const sums = (grams: readonly (readonly unknown[])[]) => grams.map((g) => g.slice(1)).slice(0, 200);
  mustAgree(
    'n-grams',
    sums(ours().map((g) => [g.ngram, g.terms, g.clicks, g.costMicros, g.conversions])),
    sums(await duckDb.ask(TOP, 2)),
  );
  const part = rows.slice(0, rows.length * SAMPLE);
  const times = await interleaved(
    {
      ours,
      coded,
      tokenising: () => terms.reduce((sum, text) => sum + words(text).length, 0),
      two: () => duckDb.ask(TOP, 2),
      map: () => byMap(terms, part),
    },
    3,
  );
  const one = await timedOnce(() => duckDb.ask(TOP, 1));
  const label = `${count(size)} terms, 1–4 words, top ${count(MOST)}`;
  return [
    ...against('n-grams with sums', label, times.ours, {
      'limit: tokenising once': times.tokenising,
      'DuckDB, 2 threads': times.two,
      'DuckDB, 1 thread': [one],
      'a Map of strings': { times: times.map, share: SAMPLE },
    }),
    ...against('n-grams of terms that are coded', label, times.coded, {
      'limit: tokenising once': times.tokenising,
    }),
  ];
}

/** What the process needs that does nothing else: the terms, their figures, the runs. */
export function benchNgramsAlone(quick: boolean): Line[] {
  const size = quick ? 30_000 : 600_000;
  const { terms, clicks, costMicros, conversions } = makeAccount(size, 1);
  const rows = terms.map((_, term) => ({
    ...{ term, clicks: clicks[term]!, costMicros: costMicros[term]!, conversions: conversions[term]! },
  }));
  const before = process.memoryUsage.rss();
  const start = performance.now();
  countCodedNgrams(codeTexts(terms), rows, { from: 1, to: 4, most: MOST });
  const own = Math.round((process.resourceUsage().maxRSS * 1024 - before) / 1e6);
  return [
    {
      ...{ task: 'n-grams: memory beside terms and figures', size: `${count(size)} terms` },
      ...{
        ours: ms(performance.now() - start),
        against: 'limit: 300 MB',
        ratio: (own / 300).toFixed(2),
        verdict: `${own} MB`,
      },
    },
  ];
}

function byMap(
  terms: readonly string[],
  rows: readonly { term: number; clicks: number; costMicros: number; conversions: number }[],
) {
  const grams = new Map<string, { terms: number; clicks: number; cost: number; conversions: number }>();
  for (const { term, clicks, costMicros, conversions } of rows) {
    const of = words(terms[term]!);
    const runs = new Set<string>();
    for (let n = 1; n <= 4; n++)
      for (let at = 0; at + n <= of.length; at++) runs.add(of.slice(at, at + n).join(' '));
    for (const run of runs) {
      const gram = grams.get(run) ?? { terms: 0, clicks: 0, cost: 0, conversions: 0 };
      gram.terms += 1;
      gram.clicks += clicks;
      gram.cost += costMicros;
      gram.conversions += conversions;
      grams.set(run, gram);
    }
  }
  return [...grams].sort((a, b) => b[1].cost - a[1].cost).slice(0, MOST);
}
