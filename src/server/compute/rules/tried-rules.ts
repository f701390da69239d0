import {
  compileGate,
  FIGURE_NAMES,
  type Condition,
  type Judge,
  type Rule,
  type SumCondition,
  type TermFacts,
  type Tried,
} from '@/core';
import type { Mirror } from '../../repositories/structure/structure';
import { groundOf, targetOf } from '../evidence/evidence';
import { hasOwnTargets, targetsOf, type Steering } from '../evidence/row-targets';
import type { Snapshot } from '../snapshot';
import type { TermsById } from './term-facts';

/** How many days lie between two looks of a rule. */
export const everyDays = ({ often }: Rule): number => (often === 'weekly' ? 7 : 1);

/**
 * What a rule names and is not there any more, in words; null where nothing is missing. Until it is there, the rule waits.
 */
export function missingOf({ where, then }: Rule, { campaigns, lists }: Mirror): string | null {
  const there = new Set(campaigns.flatMap(({ id, status }) => (status === 'removed' ? [] : [id])));
  const gone = where.is === 'everywhere' ? 0 : where.campaigns.filter((id) => !there.has(id)).length;
  if (gone > 0) return gone === 1 ? 'a campaign that is gone' : `${gone} campaigns that are gone`;
  if (where.is === 'in' && where.campaigns.length === 0) return 'campaigns: none is named';
  if (then.do === 'stop in list' && !lists.some(({ id }) => id === then.list)) return 'a list that is gone';
  return null;
}

/** Rules as the core tries them; those of the same campaigns share their ad groups. */
export function toTried(rules: readonly Rule[], mirror: Mirror, terms: TermsById): Tried[] {
  const known = new Map<string, ReadonlySet<number>>();
  const adGroupsOf = ({ where }: Rule): ReadonlySet<number> | null => {
    if (where.is === 'everywhere') return null;
    const key = `${where.is} ${where.campaigns.toSorted().join()}`;
    let found = known.get(key);
    if (!found) known.set(key, (found = adGroupsIn(where, mirror)));
    return found;
  };
  return rules.map((rule) => ({ ...aboutTerms(rule, terms), adGroups: adGroupsOf(rule) }));
}

function adGroupsIn({ is, campaigns }: Rule['where'], { adGroups }: Mirror): ReadonlySet<number> {
  const named = new Set(campaigns);
  return new Set(
    adGroups.flatMap(({ id, campaignId }) => (named.has(campaignId) === (is === 'in') ? [Number(id)] : [])),
  );
}

function aboutTerms(rule: Rule, terms: TermsById): Omit<Tried, 'adGroups'> {
  const { when, lookBack, then } = rule;
  const words = when.filter((one) => one.of === 'words').map(holdsOf);
  return {
    when: when.filter((one): one is SumCondition => one.of !== 'words'),
    ...{ lookBack, everyDays: everyDays(rule) },
    terms: {
      has(termId) {
        const kind = terms.kindOf(termId);
        if (kind !== 'query' && !(kind === 'code' && then.do !== 'stop in list')) return false;
        return words.length === 0 || words.every((holds) => holds(terms.keyOf(termId)));
      },
    },
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
