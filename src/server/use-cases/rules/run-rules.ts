import { daysBetween, factsOfNgrams, shiftDay, tryRules, type Rule, type TermFacts } from '@/core';
import { offersOf } from '../../compute/evidence/offers';
import { dayOf } from '../../compute/facts/facts';
import {
  aboutOf,
  loadRuleFacts,
  queryTextOf,
  searchesFor,
  type About,
  type TermsById,
} from '../../compute/rules/term-facts';
import { draftGateOf } from '../../compute/draft-gate';
import { listFactsOf, type ListOnCampaign } from '../../compute/rules/list-facts';
import { campaignByAdGroup, missingOf, withinSet } from '../../compute/rules/rule-places';
import { everyDays, judging, toTried } from '../../compute/rules/tried-rules';
import { lockAccount, raiseDecisionVersion, requireAccountById } from '../../repositories/account/accounts';
import { noteLook } from '../../repositories/decisions/findings';
import { listRules, type StoredRule } from '../../repositories/decisions/rules';
import type { Deps } from '../deps';
import { openWorkbench } from '../open-workbench';
import { todayOf } from '../tray/end-dates';

/**
 * Lets the rules of an account that are switched on look at its facts, all in one go, each once for each version of the facts.
 * May be called at any time, by several processes at once. A day that is not over is not looked at.
 * @returns how many rules looked
 */
export async function runRules(deps: Deps, accountId: number): Promise<number> {
  const account = await requireAccountById(deps.db, accountId);
  const rules = (await listRules(deps.db, accountId)).filter(({ state }) => state === 'on');
  if (rules.length === 0) return 0;
  const open = await openWorkbench(deps, account);
  const { snapshot } = open;
  if (snapshot.dataDays === null) return 0;
  const yesterday = shiftDay(todayOf(deps, account), -1);
  const evening = snapshot.dataDays.to < yesterday ? snapshot.dataDays.to : yesterday;
  const due = rules.filter(
    (one) => isDue(one, evening, account.factsVersion) && missingOf(withinSet(one), snapshot) === null,
  );
  if (due.length === 0) return 0;
  const windows = due.map(({ rule: { lookBack } }) => ({
    from: shiftDay(evening, 1 - lookBack.lagDays - lookBack.days),
    to: shiftDay(evening, -lookBack.lagDays),
  }));
  const sentences = due.map(({ rule }) => rule);
  // How old a term is, only the first of all days tells.
  const firsts = sentences.some(asksAge) ? [snapshot.dataDays.from] : windows.map(({ from }) => from);
  const within = { from: firsts.sort()[0]!, to: evening };
  const loaded = await loadRuleFacts(deps.db, accountId, campaignByAdGroup(snapshot), within);
  const searches = await searchesFor(deps.db, accountId, sentences);
  const at = dayOf(evening);
  const words = sentences.some((rule) => aboutOf(rule) === 'words')
    ? offersOf(open, account).offered.map(({ word }) => word)
    : [];
  const ngrams = words.map(({ ngram }) => ngram);
  const ofLists = sentences.some((rule) => aboutOf(rule) === 'lists')
    ? listFactsOf(snapshot, {
        ...{ facts: loaded.factsOf('terms'), terms: loaded.terms, gate: draftGateOf(open) },
      })
    : null;
  const lists = ofLists?.lists ?? [];
  const tried = toTried(due.map(withinSet), { ...snapshot, terms: loaded.terms, searches, words, lists });
  const factsAbout = (about: About): TermFacts => {
    if (about === 'lists') return ofLists!.facts;
    if (about !== 'words') return loaded.factsOf(about);
    return factsOfNgrams(loaded.factsOf('terms'), ngrams, queryTextOf(loaded.terms));
  };
  const looks = ABOUTS.flatMap((about) => {
    const places = due.flatMap(({ rule }, i) => (aboutOf(rule) === about ? [i] : []));
    if (places.length === 0) return [];
    const facts = factsAbout(about);
    const some = places.map((i) => tried[i]!);
    const trials = tryRules(
      facts,
      some,
      { from: at, to: at },
      judging(snapshot, account, { facts, rules: places.map((i) => sentences[i]!) }),
    );
    const ran = placesOf(
      facts,
      trials.flatMap(({ stopped }) => stopped.map(({ termId }) => termId)),
      some.some(({ keywords }) => keywords !== null),
    );
    return places.map((i, t) => ({ i, stopped: trials[t]!.stopped, ran }));
  });
  return deps.db.transaction(async (trx) => {
    const now = await lockAccount(trx, accountId);
    // What came meanwhile has its own look.
    if (now.factsVersion !== account.factsVersion) return 0;
    // So has a rule that was changed or switched off meanwhile.
    const holds = new Map((await listRules(trx, accountId)).map((one) => [one.id, one]));
    let looked = 0;
    for (const { i, stopped, ran } of looks) {
      const { id: ruleId, version } = due[i]!;
      const rule = holds.get(ruleId);
      if (rule?.state !== 'on' || rule.version !== version) continue;
      const { adGroups, keywords } = tried[i]!;
      const isSeen = (one: Ran) =>
        (!adGroups || adGroups.has(one.adGroupId)) && (!keywords || keywords.has(one.keywordId));
      const [from, to] = [dayOf(windows[i]!.from), dayOf(windows[i]!.to)];
      const found = stopped.map(({ termId, sums }) => {
        const there = ran.get(termId)!.filter((one) => one.day >= from && one.day <= to && isSeen(one));
        return {
          ...nameOf(rule.rule, termId, { terms: loaded.terms, ngrams, lists }),
          sums,
          ranIn: [...new Set(there.map((one) => one.adGroupId))],
        };
      });
      const { factsVersion } = account;
      const look = { ruleId, version, factsVersion, evening, ...windows[i]!, found };
      if (await noteLook(trx, accountId, look)) looked += 1;
    }
    if (looked > 0) await raiseDecisionVersion(trx, accountId);
    return looked;
  });
}

const ABOUTS: readonly About[] = ['terms', 'keywords', 'words', 'campaigns', 'lists'];

/** A term, a word or a list on a campaign as findings name it; a keyword or a campaign by its id. */
function nameOf(
  rule: Rule,
  id: number,
  { terms, ngrams, lists }: { terms: TermsById; ngrams: readonly string[]; lists: readonly ListOnCampaign[] },
): { term: string; isCode: boolean } {
  switch (aboutOf(rule)) {
    case 'terms':
      return { term: terms.keyOf(id), isCode: terms.kindOf(id) === 'code' };
    case 'keywords':
    case 'campaigns':
      return { term: String(id), isCode: false };
    case 'words':
      return { term: ngrams[id]!, isCode: false };
    case 'lists':
      return { term: lists[id]!.key, isCode: false };
  }
}

type Ran = { day: number; adGroupId: number; keywordId: number };

/**
 * On which days some terms ran in which ad groups, by which keywords; all by their ids.
 * @param asksKeywords whether a rule asks for keywords; 0 stands for each of them where none does
 */
function placesOf(
  facts: TermFacts,
  terms: readonly number[],
  asksKeywords: boolean,
): ReadonlyMap<number, readonly Ran[]> {
  const { count, termId, day, adGroupId } = facts;
  const keywordId = asksKeywords ? facts.keywordId : null;
  const ran = new Map(terms.map((id) => [id, [] as Ran[]]));
  for (let f = 0; f < count; f++)
    ran
      .get(termId[f]!)
      ?.push({ day: day[f]!, adGroupId: adGroupId[f]!, keywordId: keywordId ? keywordId[f]! : 0 });
  return ran;
}

const asksAge = ({ when }: Rule) => when.some(({ of }) => of === 'age');

/** Whether a rule has not looked at these facts, and its days between two looks are over. A rule that was changed looks at once. */
function isDue({ rule, version, looked }: StoredRule, evening: string, factsVersion: number): boolean {
  if (looked === null || looked.version !== version) return true;
  if (looked.factsVersion === factsVersion) return false;
  const passed = daysBetween(looked.evening, evening);
  if (passed < 0) return true; // days were taken back
  return passed === 0 ? rule.often !== 'daily' : passed >= everyDays(rule);
}
