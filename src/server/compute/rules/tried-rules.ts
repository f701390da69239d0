import {
  compileGate,
  FIGURE_NAMES,
  memoised,
  type AgeCondition,
  type Condition,
  type Judge,
  type Rule,
  type SumCondition,
  type TermCondition,
  type TermFacts,
  type Tried,
} from '@/core';
import type { TermKind } from '../../repositories/facts';
import { groundOf, targetOf } from '../evidence/evidence';
import { hasOwnTargets, targetsOf, type Steering } from '../evidence/row-targets';
import type { Snapshot, Standing } from '../snapshot';
import { adGroupsOf, keywordsIn, type RuleWithin } from './rule-places';
import type { TermsById } from './term-facts';

/** How many days lie between two looks of a rule. */
export const everyDays = ({ often }: Rule): number => (often === 'weekly' ? 7 : 1);

/** What the sentences of rules name. */
export type RuleGround = Standing & {
  terms: TermsById;
  /** searches a month by the key of a term; those of which nothing is known are left out */
  searches: ReadonlyMap<string, number>;
};

/** Rules as the core tries them; those of the same places share their ad groups and keywords. */
export function toTried(rules: readonly RuleWithin[], ground: RuleGround): Tried[] {
  const placesOf = memoised(
    ({ rule: { where }, within }: RuleWithin) => JSON.stringify([where, within]),
    (one) => ({
      ...{ adGroups: adGroupsOf(one, ground), keywords: keywordsIn(one.rule.where, ground.mirror) },
    }),
  );
  return rules.map((one) => ({ ...aboutTerms(one.rule, ground), ...placesOf(one) }));
}

function aboutTerms(rule: Rule, { terms, searches }: RuleGround): Omit<Tried, 'adGroups' | 'keywords'> {
  const { when, lookBack } = rule;
  const kinds = kindsFor(rule);
  const ofText = when
    .filter(isOfText)
    .map((one) => (one.of === 'words' ? holdsOf(one) : searchedOf(one, searches)));
  return {
    when: when.filter((one): one is SumCondition | AgeCondition => !isOfTerm(one)),
    ...{ lookBack, everyDays: everyDays(rule) },
    terms: {
      has: (termId) =>
        kinds.has(terms.kindOf(termId)) &&
        (ofText.length === 0 || ofText.every((holds) => holds(terms.keyOf(termId)))),
    },
  };
}

type OfText = Exclude<TermCondition, { of: 'kind' }>;
const isOfText = (one: Condition): one is OfText => one.of === 'words' || one.of === 'searches';
const isOfTerm = (one: Condition): one is TermCondition => one.of === 'kind' || isOfText(one);

/** A list holds no product codes, and a code need not be kept, for no negative stops it. */
function kindsFor({ when, then }: Rule): ReadonlySet<TermKind> {
  const takesCodes = then.do !== 'stop in list' && then.do !== 'keep';
  const kinds: TermKind[] = takesCodes ? ['query', 'code'] : ['query'];
  const asked = when.filter((one) => one.of === 'kind');
  return new Set(kinds.filter((kind) => asked.every(({ is }) => (is === 'codes') === (kind === 'code'))));
}

/** What research does not know of meets no condition. */
function searchedOf(
  { is, value }: Extract<Condition, { of: 'searches' }>,
  searches: ReadonlyMap<string, number>,
): (text: string) => boolean {
  return (text) => {
    const known = searches.get(text);
    return known !== undefined && (is === 'at least' ? known >= value : known <= value);
  };
}

/** Words stand in a query as a phrase negative of them would stop it (rules 2.2). */
function holdsOf({ is, words }: Extract<Condition, { of: 'words' }>): (text: string) => boolean {
  const gate = compileGate(words.map((text) => ({ text, match: 'phrase' })));
  return (text) => gate.isStopped(text) === (is === 'any of');
}

/** What each term is held against: the target of the ad groups that served it, weighed by clicks (rules 7.3). */
export function judging(snapshot: Snapshot, steering: Steering, facts: TermFacts) {
  const { prior, cpcMicros } = groundOf(snapshot);
  const ofAll: Judge = { target: targetOf(snapshot, steering), prior, cpcMicros };
  if (!hasOwnTargets(snapshot)) return () => ofAll;
  const { adGroups } = snapshot.mirror;
  const targets = targetsOf(adGroups, snapshot.ownTargets, steering);
  const ofAdGroup = new Map(adGroups.map(({ id }, i) => [Number(id), targets[i]!]));
  return (begin: number, end: number): Judge => {
    let [weight, inverse, plain, count] = [0, 0, 0, 0];
    for (let f = begin; f < end; f++) {
      const target = ofAdGroup.get(facts.adGroupId[f]!) ?? NaN;
      if (!(target > 0)) continue;
      const clicks = facts.figures[FIGURE_NAMES.length * f + CLICKS]! || 0;
      weight += clicks;
      inverse += clicks / target;
      plain += 1 / target;
      count += 1;
    }
    const target = weight > 0 ? weight / inverse : count > 0 ? count / plain : null;
    const own: Steering =
      steering.steersBy === 'CPA'
        ? { ...steering, targetMicros: target }
        : { ...steering, targetAcos: target };
    return { ...ofAll, target: targetOf(snapshot, own) };
  };
}

const CLICKS = FIGURE_NAMES.indexOf('clicks');
