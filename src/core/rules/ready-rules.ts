import { counted } from '../counted';
import type { Condition, Rule, RuleAction } from './rule';

/** What ready rules take their numbers from. */
export type ReadyFor = {
  /** of the account's clicks, 0..1; null where it is not known */
  cvr: number | null;
  /** days in which conversions still come */
  lagDays: number;
  hasTarget: boolean;
};
export type ReadyRule = { name: string; rule: Rule; reason: string };

/** Where nothing is known of the account: one click in forty. */
const USUAL_CVR = 0.025;
const MOST_CLICKS = 2_000;

const BUYS_NOTHING = [
  ...['free', 'job', 'jobs', 'salary', 'wikipedia', 'meaning', 'definition', 'pdf', 'template', 'download'],
  ...['clipart', 'drawing', 'coloring', 'tattoo', 'quotes', 'game', 'movie', 'song', 'lyrics', 'course'],
];
const QUESTIONS = ['how', 'what', 'why', 'when', 'who', 'where', 'can', 'does', 'is', 'are'];

/**
 * Ready rules, with their numbers for one account, and why these numbers.
 * @example readyRules({ cvr: 0.04, lagDays: 2, hasTarget: true })[0].rule.when[0].value // 75
 */
export function readyRules({ cvr, lagDays, hasTarget }: ReadyFor): ReadyRule[] {
  const rate = cvr !== null && cvr > 0 ? cvr : USUAL_CVR;
  const clicksFor = (conversions: number) => Math.min(MOST_CLICKS, Math.ceil(conversions / rate));
  const [often, usual, soon] = [clicksFor(3), clicksFor(2), clicksFor(1)];
  const one = `one click in ${Math.max(1, Math.round(1 / rate))} converts ${cvr === null ? 'in many accounts' : 'in this account'}`;
  const rule = (
    days: number,
    then: RuleAction,
    when: readonly Condition[],
    often: Rule['often'] = 'after each report',
  ): Rule => ({
    ...{ when, lookBack: { days, lagDays }, where: { is: 'everywhere', campaigns: [] }, then },
    ...{ how: { is: 'by approval' }, often },
  });
  const all: ReadyRule[] = [
    {
      name: 'Enough clicks, no conversion',
      rule: rule(60, IN_AD_GROUP, [atLeast('clicks', often), NOTHING]),
      reason: `As ${one}, a term as good as the average brings nothing in ${counted(often, 'click')} only once in twenty times.`,
    },
    {
      name: 'Many clicks, no conversion',
      rule: rule(60, IN_AD_GROUP, [atLeast('clicks', usual), NOTHING]),
      reason: `As ${one}, an average term brings nothing in ${counted(usual, 'click')} about once in seven times: it saves earlier, and errs more often.`,
    },
    {
      name: 'Surely misses its target',
      rule: rule(90, IN_AD_GROUP, [SURE(0.95)]),
      reason:
        'What it brought, what its clicks cost and how terms of this account convert say so with 95 in 100: the same line as in Sift.',
    },
    {
      name: 'Likely misses, and costs a conversion',
      rule: rule(60, IN_AD_GROUP, [SURE(0.8), above(1)]),
      reason:
        'Four in five is not sure, but waiting costs more here: it has cost as much as a conversion may.',
    },
    {
      name: 'Cost two conversions, brought none',
      rule: rule(60, IN_AD_GROUP, [above(2), NOTHING]),
      reason: 'An average term that is paid for twice over brings nothing about once in seven times.',
    },
    {
      name: 'Costs three times its target',
      rule: rule(90, { do: 'tell' }, [above(3), atLeast('conversions', 1)]),
      reason:
        'It converts, so that it is only told: a lower bid or a page of its own may be the better answer.',
    },
    {
      name: 'Twice as dear as its ad groups',
      rule: rule(90, { do: 'tell' }, [{ of: 'ad groups', is: 'above', times: 2 }, atLeast('conversions', 1)]),
      reason:
        'It needs no target: what converts at twice what its neighbours pay has a worse page, a worse ad, or other people behind it.',
    },
    {
      name: 'New and dear',
      rule: rule(7, { do: 'tell' }, [above(1.5), NOTHING]),
      reason:
        'A week is too short to judge by, and long enough to spend one and a half conversions. Somebody should look.',
    },
    {
      name: 'Words of those who do not buy',
      rule: rule(60, IN_AD_GROUP, [words('any of', BUYS_NOTHING), atLeast('clicks', 3), NOTHING]),
      reason:
        'Whoever looks for these seldom buys; three clicks show that it is no chance. Strike out the words that you sell by.',
    },
    {
      name: 'Questions that bring nothing',
      rule: rule(90, { do: 'tell' }, [words('any of', QUESTIONS), atLeast('clicks', soon), NOTHING]),
      reason: `Some who ask do buy, so that it is only told, after ${counted(soon, 'click')}, where an average term has converted once.`,
    },
    {
      name: 'Shown often, never clicked',
      rule: rule(30, { do: 'tell' }, [atLeast('impressions', 1_000), atMost('clicks', 0)]),
      reason:
        'At a thousand impressions a term that fits at all has a click. It costs nothing yet, but the ad does not fit it.',
    },
    {
      name: 'Slow waste',
      rule: rule(180, IN_CAMPAIGN, [atLeast('clicks', soon), above(1), NOTHING], 'weekly'),
      reason: `Few clicks a month hide what half a year shows: ${counted(soon, 'click')} or more, a conversion paid for, and none came. Whoever clicks so seldom can be stopped in the whole campaign.`,
    },
    {
      name: 'Pays: promote it',
      rule: rule(60, { do: 'promote', atSource: true }, [atLeast('conversions', 2), below(1)], 'weekly'),
      reason:
        'Two conversions within the target are seldom chance, and such a term deserves a keyword of its own, with a bid of its own.',
    },
    {
      name: 'Pays well: keep it open',
      rule: rule(90, { do: 'keep' }, [atLeast('conversions', 3), below(0.8)], 'weekly'),
      reason:
        'Three conversions at four fifths of what they may cost are no luck. Once it is kept, no negative may shut it out by oversight.',
    },
    {
      name: 'Too new to judge: wait',
      rule: rule(14, { do: 'set aside', moreClicks: soon }, [
        { of: 'age', is: 'at most', days: 14 },
        atLeast('clicks', Math.max(1, Math.ceil(soon / 4))),
        NOTHING,
      ]),
      reason: `It was seen first within two weeks. ${counted(soon, 'more click')} bring an average term one conversion, and until then it is out of the way.`,
    },
    {
      name: 'Words surely at fault',
      rule: {
        ...rule(
          90,
          IN_CAMPAIGN,
          [{ of: 'fault', is: 'at least', probability: 0.95 }, atLeast('clicks', usual)],
          'weekly',
        ),
        about: 'words',
      },
      reason: `What holds them brings less than half of what their ad groups bring, with 95 in 100; and ${counted(usual, 'click')} would have brought an average term two conversions. One phrase stops all of it in the campaigns where it ran.`,
    },
    {
      name: 'Budget spent while it pays',
      rule: {
        ...rule(
          14,
          RAISE,
          [{ of: 'budget', is: 'at least', share: 0.9 }, below(0.9), atLeast('conversions', 3)],
          'weekly',
        ),
        about: 'campaigns',
      },
      reason:
        'It spends nine tenths of its budget of a day, so that it is out of money on some days, and what it sells costs a tenth less than it may. A fifth more at a time shows whether more sales are there at this price.',
    },
    {
      name: 'List missing where it saves',
      rule: { ...rule(60, HANG, [atLeast('clicks', usual), NOTHING], 'weekly'), about: 'lists' },
      reason: `What the list stops elsewhere had ${counted(usual, 'click')} here. These would have brought an average term two conversions, and brought none.`,
    },
    {
      name: 'New campaign, list missing',
      rule: {
        ...rule(
          14,
          HANG,
          [{ of: 'age', is: 'at most', days: 30 }, atLeast('impressions', 1), NOTHING],
          'after each report',
        ),
        about: 'lists',
      },
      reason:
        'In its first thirty days each list is proposed as soon as the campaign shows up for what the list stops elsewhere, before a click is paid for; not where that sells.',
    },
    {
      name: 'Keyword surely misses: lower its bid',
      rule: { ...rule(90, LOWER, [SURE(0.95)]), about: 'keywords' },
      reason:
        'With 95 in 100 its clicks cost more than they bring. The bid becomes what they are worth by what it brought; it goes on, and shows whether that is enough.',
    },
    {
      name: 'Keyword cost three conversions, brought none: pause it',
      rule: { ...rule(90, { do: 'pause' }, [above(3), NOTHING]), about: 'keywords' },
      reason:
        'An average keyword that is paid for three times over brings nothing only once in twenty times. Look whether its terms are at fault rather than itself.',
    },
  ];
  return all.filter(
    ({ rule: { when } }) => hasTarget || when.every(({ of }) => of !== 'target' && of !== 'evidence'),
  );
}

const IN_AD_GROUP: RuleAction = { do: 'stop', at: 'ad group' };
const IN_CAMPAIGN: RuleAction = { do: 'stop', at: 'campaign' };
const LOWER: RuleAction = { do: 'set bid', way: 'lower', leastMicros: 50_000, mostMicros: 10_000_000 };
const RAISE: RuleAction = { do: 'raise budget', byShare: 0.2, mostMicros: 100_000_000 };
const HANG: RuleAction = { do: 'hang', list: null };
const NOTHING: Condition = { of: 'conversions', is: 'at most', value: 0 };
const SURE = (probability: number): Condition => ({ of: 'evidence', is: 'at least', probability });
const above = (times: number): Condition => ({ of: 'target', is: 'above', times });
const below = (times: number): Condition => ({ of: 'target', is: 'below', times });
const atLeast = (of: 'clicks' | 'impressions' | 'conversions', value: number): Condition => ({
  ...{ of, is: 'at least', value },
});
const atMost = (of: 'clicks', value: number): Condition => ({ of, is: 'at most', value });
const words = (is: 'any of' | 'none of', some: readonly string[]): Condition => ({
  ...{ of: 'words', is, words: some },
});
