import { randomLcg } from 'd3';
import {
  factsOfLists,
  FIGURE_NAMES,
  settleLists,
  tryRules,
  tryWords,
  type FittedWeek,
  type Judge,
  type RuledList,
  type SumCondition,
  type Tried,
  type TriedWords,
} from '@/core';
import { dayOf, orderFacts } from '@/server/compute/facts/facts';
import { sumHistory } from '@/server/compute/facts/sum-history';
import { sumWindow } from '@/server/compute/facts/sum-window';
import { byTermAndDay } from '@/server/compute/rules/term-facts';
import type { FactColumns } from '@/server/repositories/columns/fact-columns';
import type { AccountTerms } from '@/server/repositories/columns/term-columns';
import { against, count, interleaved, type Line } from '../measure';

const [FROM, TO, WINDOW_FROM] = ['2026-08-23', '2026-11-20', '2026-10-22'];
const [AD_GROUPS, CAMPAIGNS] = [1_000, 50];
const JUDGE: Judge = {
  ...{ target: { by: 'CPA', micros: 20_000_000 }, prior: { alpha: 1, beta: 40 }, cpcMicros: 500_000 },
  own: null,
};

/** Rules over a large account: 50 that look after a load, and one with its neighbours tried on 90 days; against the one way through the same facts that Sift takes. */
export async function benchRules(quick: boolean): Promise<Line[]> {
  const terms = quick ? 60_000 : 600_000;
  const texts = makeTexts(terms);
  const sells = (id: number) => !SELLS_NOTHING.test(texts[id - 1]!);
  const all = makeFacts(terms, 4, FROM, sells);
  const recent = makeFacts(terms, 2, WINDOW_FROM, sells);
  const known = makeTerms(terms);
  const fifty = Array.from({ length: 50 }, (_, i) => ruleOf(5 + i));
  const three = [10, 15, 20].map(ruleOf);
  const [from, to] = [dayOf(FROM), dayOf(TO)];
  const look = await interleaved(
    {
      ours: () => tryRules(byTermAndDay(recent), fifty, { from: to, to }, () => JUDGE),
      window: () => sumWindow(orderFacts(recent, known, days(WINDOW_FROM)), days(WINDOW_FROM)),
    },
    quick ? 3 : 7,
  );
  const trial = await interleaved(
    {
      ours: () => tryRules(byTermAndDay(all), three, { from, to }, () => JUDGE),
      history: () => sumHistory(orderFacts(all, known, days(FROM)), 2),
    },
    quick ? 3 : 7,
  );
  const tryOnWords = (levels: number[], weeks?: readonly FittedWeek[]) =>
    tryWords(
      byTermAndDay(all),
      levels.map((level): TriedWords => ({ ...WORDS, level })),
      { from, to },
      {
        textOf: (id) => texts[id - 1]!,
        worthOf: () => 20_000_000,
        lagDays: 2,
        judgesOf: () => () => JUDGE,
        ...(weeks && { weeks }),
      },
    );
  const { weeks } = tryOnWords([]);
  const words = await interleaved(
    {
      fit: () => tryOnWords([]),
      trial: () => tryOnWords([0.8, 0.9, 0.95], weeks),
      history: () => sumHistory(orderFacts(all, known, days(FROM)), 2),
    },
    quick ? 2 : 3,
  );
  const shared = makeLists();
  const ground = {
    campaignOf: (adGroup: number) => adGroup % CAMPAIGNS,
    textOf: (id: number) => texts[id - 1]!,
  };
  const lists = await interleaved(
    {
      ours: () => {
        const unhung = factsOfLists(byTermAndDay(all), shared, ground);
        const trials = tryRules(unhung.facts, three, { from, to }, () => JUDGE);
        return trials.map((one) =>
          settleLists(one, unhung, { evenings: { from, to }, judgeOf: () => JUDGE }),
        );
      },
      history: () => sumHistory(orderFacts(all, known, days(FROM)), 2),
    },
    quick ? 2 : 3,
  );
  const sized = (facts: FactColumns) => `${count(terms)} terms, ${count(facts.count)} facts`;
  return [
    ...against('50 rules look', sized(recent), look.ours, { 'one way: the window of Sift': look.window }),
    ...against('a trial of 90 days', sized(all), trial.ours, { 'one way: all days': trial.history }),
    ...against('a trial of words at fault, 13 weeks', sized(all), words.trial, {
      'one way: all days': words.history,
    }),
    ...against('its weeks fitted, after a load', sized(all), words.fit, {
      'one way: all days': words.history,
    }),
    ...against(`a trial of ${shared.length} lists that do not hang`, sized(all), lists.ours, {
      'one way: all days': lists.history,
    }),
  ];
}

const WORDS: Omit<TriedWords, 'level'> = {
  when: [{ of: 'clicks', is: 'at least', value: 50 }],
  ...{ lookBack: { days: 30, lagDays: 2 }, adGroups: null, words: null },
};

/** Of many words, some that are used often among them; each hangs on half of the campaigns. */
function makeLists(): RuledList[] {
  const random = randomLcg(0.13);
  return Array.from({ length: 20 }, (_, list) => ({
    entries: Array.from({ length: 500 }, () => ({
      ...{ text: `w${Math.floor(20_000 * random())}`, match: 'broad' as const },
    })),
    mayHangOn: (campaign) => (campaign + list) % 2 === 0,
  }));
}

/** Words at fault, of all frequencies: what holds one of them never converts. */
const SELLS_NOTHING = /\bw\d*13\b/;

/** Two to four words each, of a few that are used often and many that are not. */
function makeTexts(terms: number): string[] {
  const random = randomLcg(0.11);
  return Array.from({ length: terms }, () =>
    Array.from({ length: 2 + Math.floor(3 * random()) }, () => `w${Math.floor(20_000 * random() ** 3)}`).join(
      ' ',
    ),
  );
}

const days = (from: string) => ({ from, to: TO });

function ruleOf(clicks: number): Tried {
  const when: SumCondition[] = [
    { of: 'clicks', is: 'at least', value: clicks },
    { of: 'conversions', is: 'at most', value: 0 },
    { of: 'evidence', is: 'at least', probability: 0.8 },
  ];
  return {
    when,
    lookBack: { days: 30, lagDays: 2 },
    everyDays: 1,
    terms: null,
    adGroups: null,
    keywords: null,
    openOn: null,
  };
}

/** Facts of terms, so many each; some terms have many, and some run in two ad groups. */
function makeFacts(
  terms: number,
  each: number,
  from: string,
  sells: (termId: number) => boolean,
): FactColumns {
  const total = terms * each;
  const random = randomLcg(0.07);
  const [first, span] = [dayOf(from), dayOf(TO) - dayOf(from) + 1];
  const facts: FactColumns = {
    ...{ count: total, day: new Int32Array(total), termId: new Int32Array(total) },
    ...{ adGroupId: new Int32Array(total), keywordId: new Int32Array(total) },
    figures: new Float64Array(FIGURE_NAMES.length * total),
  };
  for (let f = 0; f < total; f++) {
    facts.day[f] = first + Math.floor(random() * span);
    facts.termId[f] = 1 + Math.floor(terms * random() ** 2);
    facts.adGroupId[f] = 1 + ((7 * facts.termId[f]! + Math.floor(1.3 * random())) % AD_GROUPS);
    facts.keywordId[f] = 1;
    const clicks = Math.floor(4 * random());
    facts.figures.set(
      [10 + clicks, clicks, clicks * 500_000, random() < 0.02 && sells(facts.termId[f]!) ? 1 : 0, 0],
      FIGURE_NAMES.length * f,
    );
  }
  return facts;
}

function makeTerms(terms: number): AccountTerms {
  const texts = Array.from({ length: terms }, (_, i) => `term ${i}`);
  const bytes = new TextEncoder().encode(texts.join(''));
  const starts = new Uint32Array(terms + 1);
  texts.forEach((text, i) => (starts[i + 1] = starts[i]! + text.length));
  const column = { starts, bytes };
  return {
    ...{ count: terms, ids: Int32Array.from(texts, (_, i) => i + 1), kinds: new Uint8Array(terms) },
    ...{ keys: column, raws: column },
  };
}
