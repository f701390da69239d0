import { group, min, rollup } from 'd3';
import { counted, isPhrase, opposes, type Change, type Place, type Rule, type RuleAction } from '@/core';
import { FINDING_PILES, type Finding, type FindingPile, type FindingsView } from '@/contracts/findings';
import { derivedFrom } from '../../compute/derived';
import { draftGateOf } from '../../compute/draft-gate';
import { viewIndex, viewsOf } from '../../compute/sift/views';
import { kindAt, termAt } from '../../compute/window-columns';
import { listFindings, type StoredFinding } from '../../repositories/decisions/findings';
import { listRules, type StoredRule } from '../../repositories/decisions/rules';
import type { Days } from '@/contracts/days';
import type { Db } from '../../db/connection';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { todayOf } from '../tray/end-dates';
import { aboutOf, type About } from '../../compute/rules/term-facts';
import { ofCampaign, sayCampaign, waitsForCampaign } from './campaign-findings';
import { ofList, sayListOn, waitsForList } from './list-findings';
import { ofKeyword, sayKeyword, waitsForKeyword } from './keyword-findings';
import { ofPromoted, waitsForPromotion } from './promotion-findings';
import { verdictOfAction } from './verdict-of-action';
import { changesOfWord, isLive, sayWordStopped, waitsForWord } from './word-findings';

/** What rules that are switched on propose, as the tray leaves the account. */
export async function viewFindings(
  deps: Deps,
  slug: string,
  { pile, days }: { pile: FindingPile; days?: Days },
): Promise<FindingsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { rules, piles } = await findingsOf(deps, open);
  const against = againstOf(rules, piles);
  return {
    counts: { open: piles.open.length, later: piles.later.length, refused: piles.refused.length },
    lines: piles[pile].slice(0, MOST_LINES).map((one) => ({
      ...lineOf(open, rules.get(one.ruleId)!, one),
      against: against(one),
    })),
  };
}

/** More than that nobody reads; the rest is counted. */
const MOST_LINES = 2_000;

/**
 * Findings by pile. One whose term is stopped by now wherever it ran, in the tray or in force, or that was kept or set aside, is on
 * none: who takes that back finds it again. One that was to wait is open again when its day has come.
 */
export async function findingsOf(
  deps: Deps,
  open: Open,
  db: Db = deps.db,
): Promise<{ rules: ReadonlyMap<number, StoredRule>; piles: Record<FindingPile, StoredFinding[]> }> {
  const { id } = open.account;
  const rules = new Map((await listRules(db, id)).map((rule) => [rule.id, rule]));
  const today = todayOf(deps, open.account);
  const piles = Object.fromEntries(FINDING_PILES.map((pile) => [pile, [] as StoredFinding[]])) as Record<
    FindingPile,
    StoredFinding[]
  >;
  for (const one of await listFindings(db, id)) {
    const { rule } = rules.get(one.ruleId)!;
    if (!isWaiting(open, rule, one)) continue;
    const isOver = one.state === 'later' && (one.decided?.until ?? today) <= today;
    piles[isOver ? 'open' : one.state].push(one);
  }
  piles.open = withoutOverruled(piles, rules);
  piles.open.sort((a, b) => (b.sums.costMicros ?? 0) - (a.sums.costMicros ?? 0));
  return { rules, piles };
}

/** Of the rules of a set, the first that found a term and waits for an answer wins: what those after it found is not proposed. */
function withoutOverruled(
  { open, later }: Record<FindingPile, StoredFinding[]>,
  rules: ReadonlyMap<number, StoredRule>,
): StoredFinding[] {
  const setOf = ({ ruleId }: StoredFinding) => rules.get(ruleId)!.set;
  const keyOf = (one: StoredFinding) => JSON.stringify([setOf(one)!.name, keyOfFound(rules, one)]);
  const inSets = [...open, ...later].filter((one) => setOf(one) !== null);
  const first = rollup(inSets, (some) => min(some, (one) => setOf(one)!.rank)!, keyOf);
  return open.filter((one) => setOf(one) === null || setOf(one)!.rank === first.get(keyOf(one)));
}

/** Names of the rules that found the same term, too, and want the opposite; somebody may have put that off. */
export function againstOf(
  rules: ReadonlyMap<number, StoredRule>,
  { open, later }: Record<FindingPile, StoredFinding[]>,
): (finding: StoredFinding) => string[] {
  const byTerm = group([...open, ...later], (one) => keyOfFound(rules, one));
  return (finding) => {
    const { then } = rules.get(finding.ruleId)!.rule;
    const others = (byTerm.get(keyOfFound(rules, finding)) ?? []).map((one) => rules.get(one.ruleId)!);
    return others.flatMap(({ name, rule }) => (opposes(then, rule.then) ? [name] : []));
  };
}

/** How a finding calls what it is about. */
export const sayFound = (open: Open, about: About, term: string): string => {
  switch (about) {
    case 'keywords':
      return sayKeyword(open, term);
    case 'campaigns':
      return sayCampaign(open, term);
    case 'lists':
      return sayListOn(open, term);
    case 'terms':
    case 'words':
      return term;
  }
};

/** The id of a keyword, a campaign or a list is no term. */
const keyOfFound = (rules: ReadonlyMap<number, StoredRule>, { ruleId, term }: StoredFinding) =>
  `${aboutOf(rules.get(ruleId)!.rule)} ${term}`;

/** How many findings wait for somebody. */
export async function countFindings(deps: Deps, slug: string): Promise<number> {
  const account = await requireAccount(deps, slug);
  if ((await listFindings(deps.db, account.id)).length === 0) return 0;
  return (await findingsOf(deps, await openWorkbench(deps, account))).piles.open.length;
}

/** Whether what a rule found still waits for somebody: what it wants is not so by now, and nothing else was decided. */
function isWaiting(open: Open, rule: Rule, one: StoredFinding): boolean {
  if (aboutOf(rule) === 'keywords') return waitsForKeyword(open, rule, one);
  if (aboutOf(rule) === 'words') return waitsForWord(open, rule, one);
  if (aboutOf(rule) === 'campaigns') return waitsForCampaign(open, rule, one);
  if (aboutOf(rule) === 'lists') return waitsForList(open, one);
  if (rule.then.do === 'promote') return waitsForPromotion(open, rule.then, one);
  return !isDecided(open, one);
}

/** Whether a term was kept or set aside, or is stopped by now wherever it ran. */
const isDecided = (open: Open, one: StoredFinding) =>
  decidedOf(open).has(one.term) || openIn(open, one).length === 0;

/** Terms that were kept, or set aside. */
const decidedOf = derivedFrom(
  ({ protectedOwn, aside }: Open): ReadonlySet<string> =>
    new Set([...protectedOwn.map(({ text }) => text), ...aside.map(({ key }) => key)]),
);

/** Ids of the ad groups where a rule saw a term and nothing stops it, with the tray. */
function openIn(open: Open, { term, isCode, ranIn }: StoredFinding): string[] {
  const { adGroup, campaign } = open.snapshot;
  const there = ranIn.map(String).filter((id) => {
    const one = adGroup.get(id);
    return isLive(one) && isLive(campaign.get(one!.campaignId));
  });
  if (isCode) return there.filter((id) => codesOpenIn(open).get(term)?.adGroups.has(id));
  const gate = draftGateOf(open);
  return there.filter((id) => gate.stoppers(term, id).length === 0);
}

/** Product codes as they are written, with the ad groups of the window where nothing excludes them. */
const codesOpenIn = derivedFrom((open: Open): ReadonlyMap<string, { raw: string; adGroups: Set<string> }> => {
  const { terms, served } = open.snapshot;
  const { ofRow } = viewsOf(open);
  const remaining = viewIndex('remaining');
  const found = new Map<string, { raw: string; adGroups: Set<string> }>();
  for (let t = 0; t < terms.count; t++) {
    if (kindAt(terms, t) !== 'code') continue;
    const { key, raw } = termAt(terms, t);
    const adGroups = new Set<string>();
    for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++)
      if (ofRow[r] === remaining) adGroups.add(served.adGroups[served.adGroupOf[r]!]!.id);
    found.set(key, { raw, adGroups });
  }
  return found;
});

function lineOf(open: Open, { name, rule }: StoredRule, one: StoredFinding): Omit<Finding, 'against'> {
  const { id, ruleId, term, sums, from, to, evening, decided } = one;
  const { clicks, costMicros, conversions, valueMicros } = sums;
  const about = aboutOf(rule);
  const common = {
    ...{ id, ruleId, rule: name, about, does: rule.then.do, clicks, costMicros, conversions, valueMicros },
    ...{ from, to, foundOn: evening, decided },
  };
  if (about === 'keywords') return { ...common, ...ofKeyword(open, rule, one), verdict: null };
  if (about === 'campaigns') return { ...common, ...ofCampaign(open, rule, one), verdict: null };
  if (about === 'lists') return { ...common, ...ofList(open, rule, one), verdict: null };
  if (about === 'words') {
    const place = sayWordStopped(open, rule, one);
    return { ...common, term, changes: changesOfWord(open, rule, one), place, verdict: null };
  }
  if (rule.then.do === 'promote')
    return { ...common, term, ...ofPromoted(open, rule.then, one), verdict: null };
  const places = placesOf(open, rule, one);
  return {
    ...{ ...common, term, verdict: verdictOfAction(rule.then) },
    changes: places.map((place) => stopIn(open, rule, one, place)),
    place: sayBecomes(open, rule.then, places),
  };
}

/** What a yes to a finding puts in the tray; nothing where the rule only tells. */
export function changesOf(open: Open, { rule }: StoredRule, one: StoredFinding): Change[] {
  switch (aboutOf(rule)) {
    case 'words':
      return changesOfWord(open, rule, one);
    case 'keywords':
      return ofKeyword(open, rule, one).changes;
    case 'campaigns':
      return ofCampaign(open, rule, one).changes;
    case 'lists':
      return ofList(open, rule, one).changes;
    case 'terms':
      return placesOf(open, rule, one).map((place) => stopIn(open, rule, one, place));
  }
}

/** Where a rule would stop a term: its list, or where the term ran and nothing stops it. */
function placesOf(open: Open, { then }: Rule, one: StoredFinding): Place[] {
  if (then.do === 'stop in list') return [{ kind: 'list', id: then.list }];
  if (then.do !== 'stop') return [];
  const adGroups = openIn(open, one);
  if (then.at === 'ad group') return adGroups.map((id) => ({ kind: 'adGroup', id }));
  const campaigns = new Set(adGroups.map((id) => open.snapshot.adGroup.get(id)!.campaignId));
  return [...campaigns].map((id) => ({ kind: 'campaign', id }));
}

const stopIn = (open: Open, { then }: Rule, { term, isCode }: StoredFinding, place: Place): Change =>
  isCode
    ? { kind: 'exclude product', code: codesOpenIn(open).get(term)!.raw, place }
    : { kind: 'add negative', text: term, match: isPhrase(then) ? 'phrase' : 'exact', place };

function sayBecomes({ names }: Open, then: RuleAction, places: readonly Place[]): string {
  if (then.do === 'keep') return 'kept open';
  if (then.do === 'set aside') return `set aside until ${counted(then.moreClicks, 'more click')}`;
  const [first] = places;
  if (first === undefined) return 'nowhere: the rule only tells';
  const name =
    first.kind === 'list'
      ? `list ${names.list(first.id!)}`
      : first.kind === 'campaign'
        ? names.campaign(first.id!)
        : names.adGroup(first.id!);
  return places.length === 1 ? (name ?? '') : `${name} and ${places.length - 1} more`;
}
