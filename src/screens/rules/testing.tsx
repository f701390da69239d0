import { screen } from '@testing-library/react';
import type { Finding, FindingsView, RuleActs } from '@/contracts/findings';
import type { RuleLine, RulesView, TrialLine, TrialView } from '@/contracts/rules';
import type { Rule } from '@/core';
import type { AccountSummary } from '@/contracts/common';
import type { Role } from '@/contracts/roles';
import { show, type Answers } from '../testing/screen';
import { RulesScreen } from './rules-screen';

export const aRule = (over: Partial<Rule> = {}): Rule => ({
  when: [
    { of: 'clicks', is: 'at least', value: 15 },
    { of: 'conversions', is: 'at most', value: 0 },
  ],
  ...{ lookBack: { days: 30, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
  ...{ then: { do: 'stop', at: 'ad group' }, how: { is: 'by approval' }, often: 'after each report' },
  ...over,
});

export const aRuleLine = (over: Partial<RuleLine> = {}): RuleLine => ({
  ...{ id: 1, name: '15 clicks', state: 'on', version: 1, rule: aRule(), by: 'Maren Oakes' },
  ...{ at: '2026-11-20T09:00:00Z', why: '', waitsFor: null, trouble: null, looked: '2026-11-20', open: 2 },
  set: null,
  ...over,
});

export const aView = (over: Partial<RulesView> = {}): RulesView => ({
  rules: [
    aRuleLine(),
    aRuleLine({
      ...{ id: 2, name: 'Surely misses', state: 'off', open: 0, waitsFor: 'a list that is gone' },
      rule: aRule({ when: [{ of: 'evidence', is: 'at least', probability: 0.95 }] }),
    }),
  ],
  sets: [{ name: 'Spring', where: null, rules: [1, 2] }],
  ready: [
    { name: 'Enough clicks', rule: aRule(), reason: 'One click in forty converts.', ruleId: null },
    { name: 'Surely misses', rule: aRule(), reason: 'With 95 in 100.', ruleId: 12 },
  ],
  campaigns: [
    { id: '1', name: 'Hives' },
    { id: '2', name: 'Courses' },
  ],
  lists: [{ id: '5', name: 'Work' }],
  labels: ['spring'],
  productGroups: ['Smokers'],
  ...over,
});

const aTrialLine = (clicks: number, over: Partial<TrialLine> = {}): TrialLine => ({
  rule: aRule({
    when: [
      { of: 'clicks', is: 'at least', value: clicks },
      { of: 'conversions', is: 'at most', value: 0 },
    ],
  }),
  ...{ isOwn: false, terms: 52, savedMicros: 671_300_000, lostConversions: 2, lostMicros: 52_000_000 },
  wrong: { total: 0, first: [] },
  ...over,
});
const wrong = {
  ...{ term: 'queen rearing kit', day: '2026-11-14', clicks: 16, costMicros: 9_000_000 },
  ...{ savedMicros: 4_000_000, lostConversions: 1, lostMicros: 18_000_000 },
};

export const aTrial = (rule: Rule): TrialView => {
  const [first] = rule.when;
  const clicks = first?.of === 'clicks' ? first.value : 15;
  return {
    ...{ from: '2026-11-12', to: '2026-11-14', savedMicros: [0, 4e6, 5e6], lostMicros: [0, 0, 18e6] },
    ...{ stops: [1, 0, 0], approximateTo: '2026-11-14', waitsFor: null },
    worst: { day: '2026-11-14', savedMicros: 5e6, lostMicros: 18e6 },
    lines: [
      aTrialLine(clicks - 5, { terms: 141 }),
      aTrialLine(clicks, {
        ...{ isOwn: true, terms: 83, savedMicros: 884_700_000, lostConversions: 3 },
        wrong: { total: 3, first: [wrong] },
      }),
      aTrialLine(clicks + 5),
    ],
    stopped: [wrong],
    against: [],
  };
};

export const aFinding = (id: number, term: string, over: Partial<Finding> = {}): Finding => ({
  ...{ id, ruleId: 1, rule: '15 clicks', term, clicks: 16, costMicros: 9_000_000, conversions: 0 },
  ...{ valueMicros: 0, from: '2026-10-20', to: '2026-11-18', foundOn: '2026-11-20', place: 'Starter' },
  ...{ about: 'terms', does: 'stop', decided: null, verdict: null, against: [] },
  changes: [{ kind: 'add negative', text: term, match: 'exact', place: { kind: 'adGroup', id: '1' } }],
  ...over,
});
const open = [aFinding(1, 'bee movie'), aFinding(2, 'hive tattoo', { costMicros: 4_000_000 })];
const findingsOf = (pile: unknown): FindingsView => ({
  counts: { open: 2, later: 0, refused: 1 },
  lines:
    pile === 'refused'
      ? [
          aFinding(3, 'bee hive kit', {
            decided: { by: 'Tobias Finch', at: '2026-11-20T09:00:00Z', why: 'a good one', until: null },
          }),
        ]
      : open,
});

const someActs: RuleActs = {
  acts: [
    {
      ...{ ruleId: 1, rule: '15 clicks', version: 2, term: 'bee movie', day: '2026-11-20', changes: 2 },
      ...{ state: 'in force', entry: 31, promisedMicros: 8_000_000, cameMicros: 7_500_000, days: 9 },
      isPromising: true,
    },
    {
      ...{ ruleId: 1, rule: '15 clicks', version: 2, term: 'hive tattoo', day: '2026-11-19', changes: 1 },
      ...{ state: 'on its way', entry: null, promisedMicros: null, cameMicros: null, days: 0 },
      isPromising: true,
    },
  ],
  rules: [
    {
      ...{ ruleId: 1, name: '15 clicks', terms: 2, promisedMicros: 8_000_000, cameMicros: 7_500_000 },
      days: 9,
    },
  ],
};

export const showRules = (
  search = '',
  more: Answers = {},
  { role = 'own', summary }: { role?: Role; summary?: Partial<AccountSummary> } = {},
) =>
  show(<RulesScreen />, {
    answers: {
      'GET rules': aView(),
      'GET rules/findings': ({ query }) => findingsOf(query?.pile),
      'GET rules/acts': someActs,
      'GET rules/[rule]': {
        versions: [
          {
            ...{ version: 1, name: '15 clicks', rule: aRule(), by: 'Maren Oakes' },
            ...{ at: '2026-11-20T09:00:00Z', why: 'too many' },
          },
        ],
      },
      'POST rules/trial': ({ body }) => aTrial((body as { rule: Rule }).rule),
      'POST rules': { ruleId: 7, version: 1, said: 'Switched on: the rule “New”' },
      'PUT rules/[rule]': { ruleId: 1, version: 2, said: 'The rule “15 clicks” reads otherwise' },
      'PUT rules/states': { said: 'Switched off', was: [{ id: 1, state: 'on' }] },
      'PUT rules/sets': { said: 'Sets of rules: changed Spring' },
      'PUT rules/findings': { said: 'Refused' },
      'PUT rules/findings/verdicts': { said: 'Keep 1 term open' },
      'POST tray': {
        outcomes: [
          {
            ...({ outcome: 'drafted', changeId: 9, said: 'Stop “bee movie”', heed: null } as const),
            change: open[0]!.changes[0]!,
          },
        ],
      },
      'DELETE tray': { removed: [] },
      ...more,
    },
    ...{ search, role, summary },
  });

export const inHand = () => screen.getByRole('region', { name: 'In hand' });

type Body = { rule: Rule; rules: object[]; changes: { change: object; why: string }[] };
/** What was asked with: the last time, if not told. */
export const bodyOf = (asked: { body?: unknown }[], i = -1) => asked.at(i)!.body as Body;

/** Chooses a word of a sentence. */
export const choosing =
  (user: ReturnType<typeof showRules>['user']) =>
  async (name: string, option: RegExp): Promise<void> => {
    await user.click(screen.getByRole('combobox', { name }));
    await user.click(await screen.findByRole('option', { name: option }));
  };
