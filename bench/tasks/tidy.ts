import { group, randomLcg } from 'd3';
import {
  compileDuplicates,
  covers,
  findConflicts,
  findRedundant,
  words,
  type AccountShape,
  type PlacedNegative,
} from '@/core';
import { makeAccount } from '../account';
import { normalised, openDuckDb } from '../duckdb';
import { against, count, interleaved, mustAgree, timedOnce, type Line } from '../measure';

const CAMPAIGNS = 200;
const GROUPS = 3;
const LISTS = 50;
const SAMPLE = 1 / 500;

export function makeShape(negativeCount: number): AccountShape & { texts: string[] } {
  const draw = randomLcg(0.2);
  const whole = (below: number) => Math.floor(draw() * below);
  const campaigns = Array.from({ length: CAMPAIGNS }, (_, c) => ({
    id: `c${c}`,
    adGroups: Array.from({ length: GROUPS }, (_, g) => ({ id: `g${c}-${g}` })),
  }));
  const lists = Array.from({ length: LISTS }, (_, l) => ({
    id: `l${l}`,
    hungOn: campaigns.filter(() => draw() < 0.2).map((c) => c.id),
  }));
  const place = (): PlacedNegative['place'] => {
    const kind = draw();
    if (kind < 0.3) return { kind: 'list', id: `l${whole(LISTS)}` };
    if (kind < 0.7) return { kind: 'campaign', id: `c${whole(CAMPAIGNS)}` };
    return { kind: 'adGroup', id: `g${whole(CAMPAIGNS)}-${whole(GROUPS)}` };
  };
  const { negatives, terms } = makeAccount(100_000, negativeCount);
  return {
    ...{ campaigns, lists, texts: terms },
    negatives: negatives.map((n, i) => ({ ...n, id: `n${i}`, createdAt: '2026-01-01', place: place() })),
  };
}

export async function benchTidy(quick: boolean): Promise<Line[]> {
  return [
    ...(await benchConflicts(quick)),
    ...(await benchRedundant(quick)),
    ...(await benchAllKnots(quick)),
  ];
}

/** Keywords in the ad groups of an account, most texts in one of them. */
function makeKeywords(quick: boolean) {
  const account = makeShape(quick ? 2_000 : 10_000);
  const groups = account.campaigns.flatMap((c) => c.adGroups.map((g) => ({ id: g.id, campaignId: c.id })));
  const matches = ['broad', 'phrase', 'exact'] as const;
  const keywords = account.texts.slice(0, quick ? 20_000 : 100_000).map((text, i) => ({
    ...{ id: `k${i}`, text, match: matches[i % 3]!, adGroupId: groups[(i * 7) % groups.length]!.id },
  }));
  return { account, groups, keywords };
}

/** Conflicts, redundant negatives and keywords that stand twice, one after another; all of it read in the order of the account. */
async function benchAllKnots(quick: boolean): Promise<Line[]> {
  const { account, keywords } = makeKeywords(quick);
  const ofGroup = group(keywords, ({ adGroupId }) => adGroupId);
  const unrestricted = { location: [], audience: [], device: [], language: [] };
  const live = { status: 'live', endDate: null } as const;
  const campaigns = account.campaigns.map(({ id, adGroups }) => ({
    ...{ id, ...live, ...unrestricted },
    adGroups: adGroups.map((one) => ({
      ...{ id: one.id, status: 'live' as const },
      keywords: (ofGroup.get(one.id) ?? []).map(({ id: keywordId, text, match, adGroupId }) => ({
        ...{ id: keywordId, text, match, adGroupId, status: 'live' as const },
      })),
    })),
  }));
  const inOrder = campaigns.flatMap(({ adGroups }) => adGroups.flatMap((one) => one.keywords));
  const all = () => [
    findConflicts({ account, keywords: inOrder, served: [] }).length,
    findRedundant(account).length,
    compileDuplicates({ today: '2026-11-29', campaigns }).find({
      ...{ wordOrder: 'same', matchType: 'same', reach: 'all' },
    }).groups.length,
  ];
  const times = await interleaved(
    {
      all,
      tokenising: () =>
        [...inOrder, ...account.negatives].reduce((sum, { text }) => sum + words(text).length, 0),
    },
    quick ? 3 : 9,
  );
  const size = `${count(keywords.length)} keywords × ${count(account.negatives.length)} negatives, ${CAMPAIGNS} campaigns`;
  return against('all knots', size, times.all, { 'limit: tokenising both': times.tokenising });
}

const CONFLICTS = `
  with force as (
    select n.id, n.match, n.text, string_split(n.text, ' ') as words, r.ad_group
      from negative n join reach r using (place)),
  uses as (select word, count(*) as times from (select unnest(string_split(text, ' ')) as word from negative) group by word),
  anchored as (
    select id, match, text, words, ad_group, arg_min(word, times) as anchor
      from (select *, unnest(list_distinct(words)) as word from force) join uses using (word) group by all),
  said as (
    select id, ad_group, text, match, string_split(text, ' ') as words
      from (select * replace (${normalised('text')} as text) from keyword)),
  met as (
    select s.id as keyword, s.match as keyword_match, s.text as said, s.words as have, a.match, a.text, a.words
      from (select *, unnest(list_distinct(words)) as anchor from said) s join anchored a using (anchor, ad_group))
  select count(*)::integer,
         count(*) filter (where keyword_match = 'exact' or (keyword_match = 'phrase' and match <> 'exact'))::integer
    from met
   where case match when 'exact' then said = text
                    when 'phrase' then contains(' ' || said || ' ', ' ' || text || ' ')
                    else list_has_all(have, words) end`;

async function benchConflicts(quick: boolean): Promise<Line[]> {
  const { account, groups, keywords } = makeKeywords(quick);
  const ours = () => {
    const found = findConflicts({ account, keywords, served: [] });
    return [found.length, found.filter((c) => c.severity === 'shut out').length];
  };
  const hungOn = new Map(account.lists.map((l) => [l.id, new Set(l.hungOn)]));
  const reach = groups.flatMap(({ id, campaignId }) => [
    [`campaign ${campaignId}`, id],
    [`adGroup ${id}`, id],
    ...account.lists.filter((l) => hungOn.get(l.id)!.has(campaignId)).map((l) => [`list ${l.id}`, id]),
  ]);
  const duckDb = openDuckDb();
  const text = { id: 'VARCHAR', match: 'VARCHAR', text: 'VARCHAR' } as const;
  await duckDb.fill(
    'negative',
    { ...text, place: 'VARCHAR' },
    account.negatives.map((n) => [n.id, n.match, n.text, `${n.place.kind} ${n.place.id}`]),
  );
  await duckDb.fill('reach', { place: 'VARCHAR', ad_group: 'VARCHAR' }, reach as string[][]);
  await duckDb.fill(
    'keyword',
    { ...text, ad_group: 'VARCHAR' },
    keywords.map((k) => [k.id, k.match, k.text, k.adGroupId]),
  );
  mustAgree('conflicts', ours(), (await duckDb.ask(CONFLICTS, 2))[0]);
  const times = await interleaved(
    {
      ours,
      tokenising: () => keywords.reduce((sum, k) => sum + words(k.text).length, 0),
      duckdb: () => duckDb.ask(CONFLICTS, 2),
    },
    quick ? 3 : 9,
  );
  const size = `${count(keywords.length)} keywords × ${count(account.negatives.length)} negatives, ${CAMPAIGNS} campaigns`;
  return against('conflicts', size, times.ours, {
    'limit: tokenising the keywords': times.tokenising,
    'DuckDB, 2 threads': times.duckdb,
  });
}

async function benchRedundant(quick: boolean): Promise<Line[]> {
  const size = quick ? 5_000 : 50_000;
  const account = makeShape(size);
  const fewer = { ...account, negatives: account.negatives.slice(0, size / 10) };
  const part = account.negatives.slice(0, size * SAMPLE);
  const times = await interleaved(
    {
      ours: () => findRedundant(account),
      tokenising: () => account.negatives.reduce((sum, n) => sum + words(n.text).length, 0),
      tenth: () => findRedundant(fewer),
    },
    quick ? 3 : 9,
  );
  // A part of the negatives against all: the loop grows with the square.
  const loop = await timedOnce(() =>
    part.filter((b) => account.negatives.some((a) => a !== b && covers(a, b))),
  );
  return [
    ...against(
      'redundant negatives',
      `${count(size)} negatives, ${CAMPAIGNS * (GROUPS + 1) + LISTS} places`,
      times.ours,
      {
        'limit: tokenising them': times.tokenising,
        'a loop over pairs': { times: [loop], share: SAMPLE },
      },
    ),
    ...against('redundant: growth', `${count(size / 10)} → ${count(size)}`, times.ours, {
      [`${count(size / 10)} negatives`]: times.tenth,
    }),
  ];
}
