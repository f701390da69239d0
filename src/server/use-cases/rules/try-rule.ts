import { group, max, sum } from 'd3';
import {
  asPhrases,
  isPhrase,
  neighboursOf,
  opposes,
  settleLists,
  shiftDay,
  tryRules,
  type Evenings,
  type Rule,
  type RuleAction,
  type Trial,
  type WouldStop,
} from '@/core';
import type { TrialLine, TrialView, WouldStopLine } from '@/contracts/rules';
import { dayOf } from '../../compute/facts/facts';
import { progressOf } from '../../compute/progress';
import { mayBeOffered } from '../../compute/evidence/offers';
import { listFactsOf } from '../../compute/rules/list-facts';
import { aboutOf, loadRuleFacts, queryTextOf, searchesFor, type About } from '../../compute/rules/term-facts';
import { campaignByAdGroup, missingOf, withinSet, type RuleWithin } from '../../compute/rules/rule-places';
import { judging, toTried, toTriedWords } from '../../compute/rules/tried-rules';
import { listRules, type StoredRule } from '../../repositories/decisions/rules';
import { findFirstReportEnd } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { findingsOf, sayFound } from './findings';
import { tryOnWeeks } from './fitted-weeks';

/** The most terms that are named. */
const MOST_NAMED = 500;
/** Of a rule that wants the opposite, the most terms that are named. */
const MOST_AGAINST = 3;
/** Of a neighbour, the most that are named as wrongly stopped. */
const MOST_WRONG = 20;

/**
 * What a rule would have done on each day that is kept, and what two neighbours of it would have: seeing only the days of its
 * look-back as the loads of that time had them, and by the targets of today. Nothing is written.
 */
export async function tryRule(
  deps: Deps,
  slug: string,
  { rule, ruleId }: { rule: Rule; ruleId?: number },
): Promise<TrialView> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account);
  const { snapshot } = open;
  const { dataDays } = snapshot;
  const stored = (await listRules(deps.db, account.id)).find(({ id }) => id === ruleId);
  const withinOf = (one: Rule) => withinSet({ rule: one, set: stored?.set ?? null });
  const waitsFor = missingOf(withinOf(rule), snapshot);
  if (dataDays === null || waitsFor !== null) return { ...NOTHING, waitsFor };
  const neighbours = neighboursOf(rule);
  const evenings = { from: dayOf(dataDays.from), to: dayOf(dataDays.to) };
  const rules = neighbours.map((one) => withinOf(one.rule));
  const { trials, keyOf } = await tryingOn(aboutOf(rule))(deps, open, {
    ...{ rules, evenings },
  });
  const own = trials[neighbours.findIndex(({ isOwn }) => isOwn)]!;
  const lineOf = toLine((id) => sayFound(open, aboutOf(rule), keyOf(id)), dataDays.from, evenings.from);
  const stops = Array.from(own.savedMicros, () => 0);
  for (const { day } of own.stopped) stops[day - evenings.from]! += 1;
  return {
    ...dataDays,
    ...{ savedMicros: [...own.savedMicros], lostMicros: [...own.lostMicros], stops },
    worst: worstOf(own, dataDays.from),
    approximateTo: await findFirstReportEnd(deps.db, account.id),
    lines: neighbours.map((one, i) => trialLine(one, trials[i]!, lineOf)),
    stopped: own.stopped
      .toSorted((a, b) => b.savedMicros - a.savedMicros)
      .slice(0, MOST_NAMED)
      .map(lineOf),
    against: await rulesAgainst(
      deps,
      open,
      { rule, stored },
      new Set(own.stopped.map(({ termId }) => keyOf(termId))),
    ),
    waitsFor,
  };
}

function tryingOn(about: About): (deps: Deps, open: Open, trying: Trying) => Promise<Tried> {
  switch (about) {
    case 'words':
      return tryOnWords;
    case 'lists':
      return tryOnLists;
    case 'terms':
    case 'keywords':
    case 'campaigns':
      return tryOnTerms;
  }
}

type Trying = { rules: readonly RuleWithin[]; evenings: Evenings };
type Tried = {
  trials: Trial[];
  /** as findings name what a rule is about: a term, a word, a list on a campaign, or a keyword or campaign by its id */
  keyOf(id: number): string;
};

async function tryOnTerms({ db }: Deps, open: Open, { rules, evenings }: Trying): Promise<Tried> {
  const { account, snapshot } = open;
  const sentences = rules.map(({ rule }) => rule);
  const { factsOf, terms } = await loadRuleFacts(db, account.id, campaignByAdGroup(snapshot));
  const about = aboutOf(sentences[0]!);
  const facts = factsOf(about === 'words' || about === 'lists' ? 'terms' : about);
  const searches = await searchesFor(db, account.id, sentences);
  const tried = toTried(rules, { ...snapshot, terms, searches, words: [], lists: [] });
  const judgeOf = judging(snapshot, account, { facts, rules: sentences });
  const plain = tryRules(facts, tried, evenings, judgeOf, progressOf('trial'));
  const textOf = queryTextOf(terms);
  const trials = plain.map((trial, i) => {
    const [{ then }, { adGroups }] = [sentences[i]!, tried[i]!];
    return isPhrase(then) ? asPhrases(trial, { facts, evenings, adGroups, textOf, judgeOf }) : trial;
  });
  return { trials, keyOf: about === 'terms' ? terms.keyOf : String };
}

/** Words are tried once a week; those that could not be offered as things are, are left out. */
async function tryOnWords(deps: Deps, open: Open, { rules, evenings }: Trying): Promise<Tried> {
  const { trials, ngrams } = await tryOnWeeks(deps, open, {
    rules: toTriedWords(rules, open.snapshot, mayBeOffered(open, open.account)),
    ...{ sentences: rules.map(({ rule }) => rule), evenings },
  });
  return { trials, keyOf: (id) => ngrams[id]! };
}

/** Lists are tried as they are now, where they do not hang now. */
async function tryOnLists({ db }: Deps, open: Open, { rules, evenings }: Trying): Promise<Tried> {
  const { account, snapshot } = open;
  const { factsOf, terms } = await loadRuleFacts(db, account.id, campaignByAdGroup(snapshot));
  const ofLists = listFactsOf(snapshot, { facts: factsOf('terms'), terms, gate: null });
  const { facts, lists } = ofLists;
  const judgeOf = judging(snapshot, account, { facts, rules: rules.map(({ rule }) => rule) });
  const tried = toTried(rules, { ...snapshot, terms, searches: new Map(), words: [], lists });
  const trials = tryRules(facts, tried, evenings, judgeOf, progressOf('trial'));
  return {
    trials: trials.map((trial) => settleLists(trial, ofLists, { evenings, judgeOf })),
    keyOf: (id) => lists[id]!.key,
  };
}

/** Rules that are switched on, found some of these terms, and want the opposite of them. */
async function rulesAgainst(
  deps: Deps,
  open: Open,
  { rule, stored }: { rule: Rule; stored: StoredRule | undefined },
  terms: ReadonlySet<string>,
): Promise<TrialView['against']> {
  const { rules, piles } = await findingsOf(deps, open);
  // Of its own set, the order says which wins.
  const isOther = ({ id, set }: StoredRule) =>
    id !== stored?.id && (set === null || set.name !== stored?.set?.name);
  const theirs = piles.open.filter(({ ruleId, term }) => {
    const other = rules.get(ruleId)!;
    const isSame = aboutOf(other.rule) === aboutOf(rule) && terms.has(term);
    return isSame && isOther(other) && opposes(rule.then, other.rule.then);
  });
  return [...group(theirs, (one) => one.ruleId)].map(([id, some]) => {
    const { name, rule: other } = rules.get(id)!;
    return {
      ...{ rule: name, does: wantOf(other.then), terms: some.length },
      first: some.slice(0, MOST_AGAINST).map(({ term }) => sayFound(open, aboutOf(rule), term)),
    };
  });
}

const NOTHING: Omit<TrialView, 'waitsFor'> = {
  ...{ from: null, to: null, savedMicros: [], lostMicros: [], stops: [], worst: null },
  ...{ approximateTo: null, lines: [], stopped: [], against: [] },
};

const toLine =
  (nameOf: (id: number) => string, firstDay: string, first: number) =>
  ({ termId, day, sums, savedMicros, lostConversions, lostMicros }: WouldStop): WouldStopLine => ({
    ...{ term: nameOf(termId), day: shiftDay(firstDay, day - first) },
    ...{ clicks: known(sums.clicks), costMicros: known(sums.costMicros) },
    ...{ savedMicros, lostConversions, lostMicros },
  });

const known = (figure: number) => (Number.isNaN(figure) ? null : figure);

function trialLine(
  { rule, isOwn }: { rule: Rule; isOwn: boolean },
  { stopped }: Trial,
  lineOf: (stop: WouldStop) => WouldStopLine,
): TrialLine {
  const wrong = stopped
    .filter(({ lostConversions }) => lostConversions > 0)
    .sort((a, b) => b.lostConversions - a.lostConversions || b.lostMicros - a.lostMicros);
  return {
    ...{ rule, isOwn, terms: stopped.length },
    savedMicros: sum(stopped, (one) => one.savedMicros),
    lostConversions: sum(stopped, (one) => one.lostConversions),
    lostMicros: sum(stopped, (one) => one.lostMicros),
    wrong: { total: wrong.length, first: wrong.slice(0, MOST_WRONG).map(lineOf) },
  };
}

/** The day on which most was lost beyond what was saved. */
function worstOf({ savedMicros, lostMicros }: Trial, firstDay: string): TrialView['worst'] {
  const over = Array.from(lostMicros, (lost, i) => lost - savedMicros[i]!);
  const most = max(over) ?? 0;
  if (most <= 0) return null;
  const i = over.indexOf(most);
  return { day: shiftDay(firstDay, i), savedMicros: savedMicros[i]!, lostMicros: lostMicros[i]! };
}

function wantOf(then: RuleAction): TrialView['against'][number]['does'] {
  switch (then.do) {
    case 'keep':
    case 'set aside':
    case 'promote':
    case 'pause':
      return then.do;
    case 'set bid':
      return then.way;
    case 'raise budget':
      return 'raise';
    case 'stop':
    case 'stop in list':
    case 'hang':
    case 'tell': // who only tells wants nothing else
      return 'stop';
  }
}
