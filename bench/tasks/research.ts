import { findRemainders, groupIdeas, proposeStems, stemOf, stemTexts, words } from '@/core';
import { makeAccount } from '../account';
import { openDuckDb } from '../duckdb';
import { against, count, interleaved, mustAgree, type Line } from '../measure';

const IDEAS = 20_000;
const STEMS = 8;
const SETTINGS = { smallest: 5, longest: 3, most: 200, fineness: 0.3, without: [] };

/** Ideas of a sheet whose words are stems already, so that peers without a stemmer do the same work. */
function makeIdeas(): { texts: string[]; stems: string[] } {
  const stable = (word: string): string => (stemOf(word) === word ? word : stable(stemOf(word)));
  const made = makeAccount(IDEAS, 1).terms.map((text) => words(text).map(stable).join(' '));
  const texts = [...new Set(made)];
  return {
    texts,
    stems: proposeStems(stemTexts(texts), [])
      .map(({ text }) => text)
      .slice(0, STEMS),
  };
}

const MOST = 200;
const byCount = ` order by 2 desc, 1 limit ${MOST}`;

/** Pieces between the stems, and how many ideas hold each within a piece. */
const remaindersIn = (stems: readonly string[]) => `
  with cut as (
    select id, unnest(string_split_regex(' ' || replace(text, ' ', '  ') || ' ', ' (${stems.join('|')}) ')) as piece from idea),
  piece as (select id, string_split(trim(replace(piece, '  ', ' ')), ' ') as words from cut where trim(piece) <> ''),
  named as (select distinct array_to_string(words, ' ') as text from piece),
  starts as (select id, words, unnest(range(1, len(words) + 1)) as pos from piece),
  runs as (
    select distinct id, array_to_string(words[pos : pos + n - 1], ' ') as text
      from starts cross join (select unnest(range(1, 16)) as n) where pos + n - 1 <= len(words))
  select text, count(*)::integer from runs semi join named using (text) group by text`;

/** What a sheet asks of the core: remainders and groups. */
export async function benchResearch(): Promise<Line[]> {
  const { texts, stems } = makeIdeas();
  const duckDb = openDuckDb();
  await duckDb.fill(
    'idea',
    { id: 'INTEGER', text: 'VARCHAR' },
    texts.map((text, i) => [i, text]),
  );
  const remainders = () => findRemainders(stemTexts(texts), stems);
  const said = ({ texts: left, counts }: ReturnType<typeof remainders>) =>
    left.map((text, i) => [text, counts[i]!] as const);
  const inDuckDb = () => duckDb.ask(remaindersIn(stems) + byCount, 2);
  const ordered = (all: readonly (readonly [string, number])[]) =>
    all.toSorted((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).slice(0, MOST);
  mustAgree(
    'remainders',
    ordered(said(remainders())),
    ordered(remaindersByMap(texts, stems)),
    await inDuckDb(),
  );
  const coded = stemTexts(texts);
  const times = await interleaved(
    {
      remainders,
      recounted: () => findRemainders(coded, stems),
      groups: () => groupIdeas(stemTexts(texts), SETTINGS),
      regrouped: () => groupIdeas(coded, SETTINGS),
      tokenising: () => texts.reduce((sum, text) => sum + words(text).length, 0),
      duckDb: inDuckDb,
      map: () => remaindersByMap(texts, stems),
    },
    7,
  );
  const size = `${count(texts.length)} ideas`;
  return [
    ...against('remainders of a sheet', size, times.remainders, {
      'limit: tokenising once': times.tokenising,
      'DuckDB, 2 threads': times.duckDb,
      'a Map of strings': times.map,
    }),
    ...against('— with other stems', size, times.recounted, { 'limit: tokenising once': times.tokenising }),
    ...against('groups of a sheet', size, times.groups, { 'limit: tokenising once': times.tokenising }),
    ...against('— grouped anew', size, times.regrouped, { 'limit: tokenising once': times.tokenising }),
  ];
}

function remaindersByMap(texts: readonly string[], stems: readonly string[]): [string, number][] {
  const isStem = new Set(stems);
  const pieces = texts.map((text) => {
    const cut: string[][] = [[]];
    for (const word of words(text))
      if (isStem.has(word)) cut.push([]);
      else cut.at(-1)!.push(word);
    return cut.filter((piece) => piece.length > 0);
  });
  const holders = new Map(pieces.flat().map((piece) => [piece.join(' '), new Set<number>()]));
  for (const [idea, of] of pieces.entries())
    for (const piece of of)
      for (let from = 0; from < piece.length; from++)
        for (let to = from + 1; to <= piece.length; to++)
          holders.get(piece.slice(from, to).join(' '))?.add(idea);
  return [...holders].map(([text, of]) => [text, of.size]);
}
