import {
  compileAccountGate,
  compilePromotions,
  openingBid,
  stops,
  textSeverity,
  words,
  type AccountShape,
  type PromotionPlan,
} from '@/core';
import { against, count, interleaved, mustAgree, timedOnce, type Line } from '../measure';
import { makeShape } from './tidy';

const TERMS = 5_000;
const SAMPLE = 1 / 100;

/** Plans of converting terms, each with its opening bid, in an account of 100,000 keywords; held against the rule asked one by one. */
export async function benchPromotion(quick: boolean): Promise<Line[]> {
  const account = makeShape(quick ? 2_000 : 10_000);
  const groups = account.campaigns.flatMap((c) => c.adGroups.map((g) => ({ id: g.id, campaignId: c.id })));
  const matches = ['broad', 'phrase', 'exact'] as const;
  const keywords = account.texts.slice(0, quick ? 20_000 : 100_000).map((text, i) => ({
    ...{ id: `k${i}`, text, match: matches[i % 3]!, adGroupId: groups[(i * 7) % groups.length]!.id },
  }));
  const terms = account.texts.slice(-TERMS).map((text, i) => {
    const { adGroups } = account.campaigns[i % account.campaigns.length]!;
    const [exact, phrase, broad] = adGroups.map(({ id }) => id) as [string, string, string];
    return { text, seats: { exact, phrase, broad }, missing: [groups[(i * 11) % groups.length]!.id] };
  });
  const planAll = () => {
    const planner = compilePromotions(account, keywords);
    return terms.map((term) => {
      const bid = openingBid(
        { clicks: 40, costMicros: 30_000_000, conversions: 2, valueMicros: null },
        { by: 'CPA', micros: 12_000_000 },
        10_000,
      );
      return { plan: planner.plan(term), bid };
    });
  };
  const part = terms.slice(0, TERMS * SAMPLE);
  const tell = ({ parts, standing, obstacles }: PromotionPlan) => [
    parts.length,
    standing.length,
    obstacles.length,
  ];
  const byRule = () => part.map((term) => tellByRule(account, keywords, term));
  mustAgree(
    'promotion',
    planAll()
      .slice(0, part.length)
      .map(({ plan }) => tell(plan)),
    byRule(),
  );
  const times = await interleaved(
    {
      ours: planAll,
      compiling: () => compileAccountGate(account),
      tokenising: () =>
        [...keywords, ...account.negatives].reduce((sum, { text }) => sum + words(text).length, 0),
    },
    quick ? 3 : 9,
  );
  const loop = await timedOnce(byRule);
  const size = `${count(TERMS)} terms, ${count(keywords.length)} keywords, ${count(account.negatives.length)} negatives`;
  return against('promotion', size, times.ours, {
    'limit: a second': times.ours.map(() => 1_000),
    'compiling the gate': times.compiling,
    'tokenising keywords and negatives': times.tokenising,
    'the rule, one by one': { times: [loop], share: SAMPLE },
  });
}

type Keyword = { text: string; match: 'broad' | 'phrase' | 'exact'; adGroupId: string };
type Term = { text: string; seats: Record<'exact' | 'phrase' | 'broad', string>; missing: string[] };

/** How many parts are planned, are there, and stand in the way, asked of every negative and keyword in turn. */
function tellByRule(
  account: AccountShape,
  keywords: readonly Keyword[],
  { text, seats, missing }: Term,
): number[] {
  const { campaigns, lists, negatives } = account;
  const stoppersAt = (adGroupId: string, query: string) => {
    const campaignId = campaigns.find(({ adGroups }) => adGroups.some(({ id }) => id === adGroupId))!.id;
    const hung = new Set(lists.filter(({ hungOn }) => hungOn.includes(campaignId)).map(({ id }) => id));
    return negatives.filter(
      ({ place: { kind, id }, ...n }) =>
        (kind === 'adGroup' ? id === adGroupId : kind === 'campaign' ? id === campaignId : hung.has(id!)) &&
        stops(n, query),
    );
  };
  const told = [0, 0, 0];
  const isSeated = { exact: false, phrase: false, broad: false };
  for (const match of ['exact', 'phrase', 'broad'] as const) {
    const isShutOut = stoppersAt(seats[match], text).some(
      (n) => textSeverity({ text, match }, n) === 'shut out',
    );
    const isThere = keywords.some(
      (k) => k.adGroupId === seats[match] && k.match === match && k.text === text,
    );
    told[isShutOut ? 2 : isThere ? 1 : 0]! += 1;
    isSeated[match] = !isShutOut;
  }
  const leave = (match: 'exact' | 'phrase', adGroupId: string) => {
    const covering = { exact: ['exact', 'phrase', 'broad'], phrase: ['phrase', 'broad'] }[match];
    const isThere = stoppersAt(adGroupId, text).some((n) => covering.includes(n.match));
    const shutsOut = keywords.some(
      (k) => k.adGroupId === adGroupId && textSeverity(k, { text, match }) === 'shut out',
    );
    told[isThere ? 1 : shutsOut ? 2 : 0]! += 1;
  };
  if (isSeated.exact) leave('exact', seats.phrase);
  const isServed = isSeated.exact || (isSeated.phrase && stoppersAt(seats.phrase, text).length === 0);
  if (isSeated.phrase && isServed) leave('phrase', seats.broad);
  else if (isSeated.exact) leave('exact', seats.broad);
  if (isSeated.exact)
    for (const source of missing) if (!Object.values(seats).includes(source)) leave('exact', source);
  return told;
}
