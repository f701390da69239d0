import {
  compileGate,
  FIGURE_NAMES,
  memoised,
  normalise,
  OFFERED_FROM,
  type AgeCondition,
  type Condition,
  type Judge,
  type Rule,
  type SumCondition,
  type TermCondition,
  type TermFacts,
  type Tried,
  type TriedWords,
} from '@/core';
import type { TermKind } from '../../repositories/facts';
import type { Campaign } from '../../repositories/structure/structure';
import { groundOf, targetOf } from '../evidence/evidence';
import { hasOwnTargets, steeringKey, targetsOf, type Steering } from '../evidence/row-targets';
import { derivedByKey } from '../derived';
import { adGroupsOf as adGroupsOfHistory } from '../history/ad-group-rates';
import type { LiveKeyword, Snapshot, Standing } from '../snapshot';
import type { ListOnCampaign } from './list-facts';
import { adGroupsOf, keywordsIn, type RuleWithin } from './rule-places';
import { aboutOf, type TermsById } from './term-facts';

/** How many days lie between two looks of a rule. */
export const everyDays = ({ often }: Rule): number => (often === 'weekly' ? 7 : 1);

/** What the sentences of rules name. */
export type RuleGround = Standing & {
  liveKeyword: ReadonlyMap<string, LiveKeyword>;
  terms: TermsById;
  /** searches a month by the key of a term; those of which nothing is known are left out */
  searches: ReadonlyMap<string, number>;
  /** of rules on words: those that are offered, as their facts number them */
  words: readonly { ngram: string; probability: number }[];
  /** of rules on lists: where they do not hang, as their facts number them */
  lists: readonly ListOnCampaign[];
};

/** Rules as the core tries them; those of the same places share their ad groups and keywords. */
export function toTried(rules: readonly RuleWithin[], ground: RuleGround): Tried[] {
  const placesOf = memoised(
    ({ rule: { where }, within }: RuleWithin) => JSON.stringify([where, within]),
    (one) => ({
      ...{ adGroups: adGroupsOf(one, ground), keywords: keywordsIn(one.rule.where, ground.mirror) },
    }),
  );
  return rules.map((one) => ({
    ...{ lookBack: one.rule.lookBack, everyDays: everyDays(one.rule), openOn: null },
    when: one.rule.when.filter(isSeen),
    ...placesOf(one),
    ...subjectOf(one.rule, ground),
  }));
}

function subjectOf(rule: Rule, ground: RuleGround): Pick<Tried, 'terms'> & Partial<Pick<Tried, 'keywords'>> {
  switch (aboutOf(rule)) {
    case 'terms':
      return { terms: termsFor(rule, ground) };
    case 'keywords':
      return { terms: keywordsFor(rule, ground), keywords: null };
    case 'words':
      return { terms: wordsFor(rule, ground), keywords: null };
    case 'campaigns':
      return { terms: campaignsFor(rule, ground), keywords: null };
    case 'lists':
      return { terms: listsFor(rule, ground), keywords: null };
  }
}

/** How surely a word is at fault that a rule is about. */
const levelOf = ({ when }: Rule): number =>
  Math.max(OFFERED_FROM, ...when.filter((one) => one.of === 'fault').map(({ probability }) => probability));

function wordsFor(rule: Rule, { words, searches }: RuleGround): Tried['terms'] {
  const holds = textTest(rule, searches);
  const level = levelOf(rule);
  return {
    has(word) {
      const { ngram, probability } = words[word]!;
      return probability >= level && (holds === null || holds(ngram));
    },
  };
}

/**
 * Rules on words as the core tries them on the past.
 * @param mayBeOffered whether a word may be offered at all, as things are
 */
export function toTriedWords(
  rules: readonly RuleWithin[],
  standing: Standing,
  mayBeOffered: (ngram: string) => boolean,
): TriedWords[] {
  return rules.map((one) => {
    const holds = textTest(one.rule, new Map());
    return {
      ...{ lookBack: one.rule.lookBack, adGroups: adGroupsOf(one, standing), level: levelOf(one.rule) },
      when: one.rule.when.filter(isSeen),
      words: (ngram) => mayBeOffered(ngram) && (holds === null || holds(ngram)),
    };
  });
}

/** The terms that a rule is about. */
function termsFor(rule: Rule, { terms, searches }: RuleGround): Tried['terms'] {
  const kinds = kindsFor(rule);
  const holds = textTest(rule, searches);
  return {
    has: (termId) => kinds.has(terms.kindOf(termId)) && (holds === null || holds(terms.keyOf(termId))),
  };
}

/** The keywords that a rule is about: those that are live, of the match types that it names. */
function keywordsFor(rule: Rule, { liveKeyword, searches }: RuleGround): Tried['terms'] {
  const holds = textTest(rule, searches);
  const { servedBy = [] } = rule.where;
  return {
    has(keywordId) {
      const keyword = liveKeyword.get(String(keywordId));
      if (!keyword || (servedBy.length > 0 && !servedBy.includes(keyword.match))) return false;
      return holds === null || holds(normalise(keyword.text));
    },
  };
}

/** The campaigns that a rule is about: those that are live, and where it sets a budget, have one of their own. */
function campaignsFor({ then }: Rule, { mirror }: RuleGround): Tried['terms'] {
  const mayBe = (one: Campaign) => then.do !== 'raise budget' || ownBudgetOf(one) !== null;
  const live = mirror.campaigns.filter((one) => one.status === 'live' && mayBe(one));
  return new Set(live.map(({ id }) => Number(id)));
}

/** The lists that a rule is about: all, or the one that it names. */
function listsFor({ then }: Rule, { lists }: RuleGround): Tried['terms'] {
  const named = then.do === 'hang' ? then.list : null;
  return named === null ? null : { has: (place) => lists[place]!.listId === named };
}

/** The budget of a day that a campaign does not share, micro-units; null where it has none. */
export const ownBudgetOf = ({ budgetMicros, sharedBudget }: Campaign): number | null =>
  sharedBudget === null ? budgetMicros : null;

/** What a rule says of a text; null where it says nothing. */
function textTest({ when }: Rule, searches: RuleGround['searches']): ((text: string) => boolean) | null {
  const tests = when
    .filter(isOfText)
    .map((one) => (one.of === 'words' ? holdsOf(one) : searchedOf(one, searches)));
  return tests.length === 0 ? null : (text) => tests.every((holds) => holds(text));
}

type OfText = Exclude<TermCondition, { of: 'kind' }>;
const isOfText = (one: Condition): one is OfText => one.of === 'words' || one.of === 'searches';
/** What is seen in facts, and not in the text. */
const isSeen = (one: Condition): one is SumCondition | AgeCondition =>
  one.of !== 'kind' && one.of !== 'fault' && !isOfText(one);

/** A list holds no product codes, a code need not be kept, for no negative stops it, and it can be no keyword. */
function kindsFor({ when, then }: Rule): ReadonlySet<TermKind> {
  const takesCodes = !['stop in list', 'keep', 'promote'].includes(then.do);
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

/**
 * What each term is held against: the target of the ad groups that served it, and where a rule asks what these pay as a whole; both
 * weighed by clicks (rules 7.3).
 */
export function judging(
  snapshot: Snapshot,
  steering: Steering,
  { facts, rules }: { facts: TermFacts; rules: readonly Rule[] },
): (begin: number, end: number) => Judge {
  const { prior, cpcMicros } = groundOf(snapshot);
  const ofAll: Judge = { target: targetOf(snapshot, steering), own: null, prior, cpcMicros };
  const budgets = new Map(
    rules.some(({ about }) => about === 'campaigns')
      ? snapshot.mirror.campaigns.map((one) => [Number(one.id), ownBudgetOf(one)] as const)
      : [],
  );
  const asksOwn = rules.some(({ when }) => when.some(({ of }) => of === 'ad groups'));
  const { adGroups } = snapshot.mirror;
  const targets = targetsOf(adGroups, snapshot.ownTargets, steering);
  const target = weighing(facts, new Map(adGroups.map(({ id }, i) => [Number(id), targets[i]!])));
  const own = weighing(facts, asksOwn ? paidBy(snapshot, steering) : new Map());
  const held = (amount: number | null) => targetOf(snapshot, steeringTo(steering, amount));
  if (budgets.size > 0)
    return (begin, end) => ({
      ...{ ...ofAll, budgetMicros: budgets.get(facts.termId[begin]!) },
      target: hasOwnTargets(snapshot) ? held(target(begin, end)) : ofAll.target,
    });
  if (!hasOwnTargets(snapshot)) {
    if (!asksOwn) return () => ofAll;
    return (begin, end) => ({ ...ofAll, own: held(own(begin, end)) });
  }
  return (begin, end) => ({
    ...{ ...ofAll, target: held(target(begin, end)) },
    own: asksOwn ? held(own(begin, end)) : null,
  });
}

/** The amount at which what some facts cost is right, where each ad group has its own: weighed by clicks; null where none has. */
function weighing(
  facts: TermFacts,
  amountOf: ReadonlyMap<number, number>,
): (begin: number, end: number) => number | null {
  return (begin, end) => {
    let [weight, inverse, plain, count] = [0, 0, 0, 0];
    for (let f = begin; f < end; f++) {
      const amount = amountOf.get(facts.adGroupId[f]!) ?? NaN;
      if (!(amount > 0)) continue;
      const clicks = facts.figures[FIGURE_NAMES.length * f + CLICKS]! || 0;
      weight += clicks;
      inverse += clicks / amount;
      plain += 1 / amount;
      count += 1;
    }
    if (weight > 0) return weight / inverse;
    return count > 0 ? count / plain : null;
  };
}

/**
 * What a conversion costs in each ad group as a whole, over all days that are kept: its own cost a click over the rate that is expected
 * of it (rules 7.12). Micro-units, or a fraction of what a conversion of the account is worth, as the account steers.
 */
const paidBy = derivedByKey(steeringKey, (snapshot: Snapshot, { steersBy }: Steering) => {
  const { indexOf, clicks, costMicros, shrunk } = adGroupsOfHistory(snapshot.history);
  const { meanValueMicros } = groundOf(snapshot);
  const per = steersBy === 'CPA' ? 1 : (meanValueMicros ?? NaN);
  return new Map(
    [...indexOf].map(([id, g]) => [id, costMicros[g]! / clicks[g]! / (shrunk?.rates[g] ?? NaN) / per]),
  );
});

/** What keywords of an ad group are held against, by its id. */
export const judgingAdGroups = derivedByKey(steeringKey, (snapshot: Snapshot, steering: Steering) => {
  const { prior, cpcMicros } = groundOf(snapshot);
  const { adGroups } = snapshot.mirror;
  const targets = targetsOf(adGroups, snapshot.ownTargets, steering);
  const ofAdGroup = new Map(adGroups.map(({ id }, i) => [id, targets[i]!]));
  return (adGroupId: string): Judge => ({
    ...{ prior, cpcMicros, own: null },
    target: targetOf(snapshot, steeringTo(steering, ofAdGroup.get(adGroupId) ?? null)),
  });
});

const steeringTo = (steering: Steering, target: number | null): Steering =>
  steering.steersBy === 'CPA' ? { ...steering, targetMicros: target } : { ...steering, targetAcos: target };

const CLICKS = FIGURE_NAMES.indexOf('clicks');
