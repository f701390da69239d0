import {
  buildTermTable,
  compileGate,
  matchAll,
  matchingTexts,
  stops,
  words,
  type NegativeText,
} from '@/core';
import { makeAccount } from '../account';
import { normalised, openDuckDb } from '../duckdb';
import { against, count, interleaved, mustAgree, timedOnce, type Line } from '../measure';

const SAMPLE = 1 / 4_000;

/** Each negative is met under its rarest word, as in ours; then the rule of its match type. */
const ALL_STOPPERS = `
  with said as (
    select id, text, string_split(text, ' ') as words
      from (select id, ${normalised('text')} as text from query)),
  negated as (select id, match, text, string_split(text, ' ') as words from negative),
  uses as (select word, count(*) as times from (select unnest(words) as word from negated) group by word),
  anchored as (
    select id, match, text, words, arg_min(word, times) as anchor
      from (select *, unnest(list_distinct(words)) as word from negated) join uses using (word)
     group by all),
  met as (
    select said.id as query, said.text as said, said.words as have, a.*
      from (select *, unnest(list_distinct(words)) as anchor from said) as said join anchored a using (anchor))
  select count(*), count(distinct query) from met
   where case match when 'exact' then said = text
                    when 'phrase' then contains(' ' || said || ' ', ' ' || text || ' ')
                    else list_has_all(have, words) end`;

export async function benchGate(quick: boolean): Promise<Line[]> {
  const size = quick ? 30_000 : 600_000;
  const { terms, negatives } = makeAccount(size, quick ? 2_000 : 10_000);
  const stopperCounts = (queries: readonly string[]) => {
    const gate = compileGate(negatives);
    let [stoppers, stopped] = [0, 0];
    for (const query of queries) {
      const found = gate.stoppers(query).length;
      stoppers += found;
      if (found > 0) stopped += 1;
    }
    return [stoppers, stopped];
  };
  const sample = terms.filter((_, i) => i % (1 / SAMPLE) === 0);
  const plain = () => {
    const found = sample.map((query) => negatives.filter((n) => stops(n, query)).length);
    return [found.reduce((a, b) => a + b, 0), found.filter((n) => n > 0).length];
  };
  const duckDb = openDuckDb();
  await duckDb.fill(
    'query',
    { id: 'INTEGER', text: 'VARCHAR' },
    terms.map((text, id) => [id, text]),
  );
  await duckDb.fill(
    'negative',
    { id: 'INTEGER', match: 'VARCHAR', text: 'VARCHAR' },
    negatives.map((n, id) => [id, n.match, n.text]),
  );
  mustAgree('gate', stopperCounts(sample), plain());
  mustAgree('gate', stopperCounts(terms), (await duckDb.ask(ALL_STOPPERS, 2))[0]);
  const times = await interleaved(
    {
      ours: () => stopperCounts(terms),
      tokenising: () => terms.reduce((sum, text) => sum + words(text).length, 0),
      two: () => duckDb.ask(ALL_STOPPERS, 2),
    },
    5,
  );
  const one = await timedOnce(() => duckDb.ask(ALL_STOPPERS, 1));
  const slow = await timedOnce(plain);
  const growth = await growthOfGate(terms, negatives);
  const label = `${count(size)} queries × ${count(negatives.length)} negatives`;
  return [
    ...against('gate: all stoppers, index built', label, times.ours, {
      'limit: tokenising once': times.tokenising,
      'DuckDB, 2 threads': times.two,
      'DuckDB, 1 thread': [one],
      'plain loop': { times: [slow], share: SAMPLE },
    }),
    ...growth,
    ...(await benchStored(terms, negatives)),
    ...(await benchEffect(terms, negatives)),
  ];
}

/** All negatives over terms that are stored and coded already. */
async function benchStored(terms: readonly string[], negatives: readonly NegativeText[]): Promise<Line[]> {
  const table = buildTermTable(terms);
  const atOnce = () => {
    let met = 0;
    matchAll(table, negatives, () => (met += 1));
    return met;
  };
  const byLists = () => negatives.reduce((sum, n) => sum + matchingTexts(table, n).length, 0);
  const gate = compileGate(negatives);
  mustAgree(
    'stored terms',
    atOnce(),
    terms.reduce((sum, text) => sum + gate.stoppers(text).length, 0),
  );
  mustAgree('stored terms by posting lists', atOnce(), byLists());
  const times = await interleaved(
    { atOnce, byLists, tokenising: () => terms.reduce((sum, text) => sum + words(text).length, 0) },
    3,
  );
  return against(
    'gate: all stoppers of stored terms',
    `${count(terms.length)} terms × ${count(negatives.length)} negatives`,
    times.atOnce,
    { 'limit: tokenising once': times.tokenising, 'negative after negative': times.byLists },
  );
}

/** Ten times the negatives should cost far less than ten times. */
async function growthOfGate(terms: readonly string[], negatives: readonly NegativeText[]): Promise<Line[]> {
  const few = negatives.slice(0, negatives.length / 10);
  const run = (of: typeof negatives) => () => {
    const gate = compileGate(of);
    return terms.reduce((sum, text) => sum + gate.stoppers(text).length, 0);
  };
  const part = makeAccount(terms.length / 10, 1).terms;
  const times = await interleaved(
    {
      many: run(negatives),
      few: run(few),
      tenth: () => {
        const gate = compileGate(negatives);
        return part.reduce((sum, text) => sum + gate.stoppers(text).length, 0);
      },
    },
    3,
  );
  return [
    ...against(
      'gate: growth with the negatives',
      `${count(few.length)} → ${count(negatives.length)}`,
      times.many,
      {
        [`${count(few.length)} negatives`]: times.few,
      },
    ),
    ...against('gate: growth with the terms', `${count(part.length)} → ${count(terms.length)}`, times.many, {
      [`${count(part.length)} terms`]: times.tenth,
    }),
  ];
}

/** What a draft of 50 negatives stops, and what one more does, on terms that are stored. */
async function benchEffect(terms: readonly string[], negatives: readonly NegativeText[]): Promise<Line[]> {
  const [draft, more] = [negatives.slice(0, 50), negatives.slice(50, 51)];
  const table = buildTermTable(terms);
  const byIndex = (of: typeof negatives) => new Set(of.flatMap((n) => matchingTexts(table, n))).size;
  const byScan = (of: typeof negatives) => {
    const gate = compileGate(of);
    return terms.reduce((sum, text) => sum + (gate.isStopped(text) ? 1 : 0), 0);
  };
  mustAgree('effect', byIndex(draft), byScan(draft));
  const times = await interleaved(
    {
      draft: () => byIndex(draft),
      scan: () => byScan(draft),
      more: () => byIndex(more),
      scanOne: () => byScan(more),
    },
    5,
  );
  const size = `${count(terms.length)} terms`;
  return [
    ...against('effect of a draft of 50', size, times.draft, { 'scanning all terms': times.scan }),
    ...against('effect of one more negative', size, times.more, { 'scanning all terms': times.scanOne }),
  ];
}
