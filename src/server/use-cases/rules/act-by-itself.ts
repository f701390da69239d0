import { changeKey, codeKey, negativesBroughtBy, withinBounds, type Bounds, type Change } from '@/core';
import { mayDo } from '@/contracts/roles';
import { aboutOf } from '../../compute/rules/term-facts';
import { hurtsByCampaign } from '../../compute/lists/list-reach';
import { keywordsStoppedBy } from '../../compute/workbench';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDecisionVersion, type Account } from '../../repositories/account/accounts';
import { listMembers } from '../../repositories/account/members';
import { insertActs, listActs, type RuleActed } from '../../repositories/decisions/rule-acts';
import { type StoredFinding } from '../../repositories/decisions/findings';
import { listRules, setRuleTrouble, type StoredRule } from '../../repositories/decisions/rules';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, type Open } from '../open-workbench';
import { draftWithin } from '../tray/draft-changes';
import { todayOf } from '../tray/end-dates';
import { sendWithin } from '../tray/send-tray';
import { againstOf, changesOf, findingsOf } from './findings';

/**
 * Lets the rules that act by themselves do so: each sends what it found through the tray, within its bounds, in the name of whoever
 * switched it on. A rule acts on a thing once: what comes up again, somebody decides. May be called at any time, by several
 * processes at once.
 * @returns on how many terms, words, keywords, campaigns and lists they acted
 */
export async function actByThemselves(deps: Deps, accountId: number): Promise<number> {
  const acting = (await listRules(deps.db, accountId)).filter(actsByItself);
  let acted = 0;
  for (const { id } of acting) acted += await actBy(deps, accountId, id);
  return acted;
}

type ByItself = StoredRule & { bounds: Bounds };

export const actsByItself = ({ state, rule }: StoredRule) => state === 'on' && rule.how.is === 'by itself';

async function actBy(deps: Deps, accountId: number, ruleId: number): Promise<number> {
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, accountId);
    const rule = (await listRules(trx, accountId)).find(({ id }) => id === ruleId);
    if (rule?.state !== 'on' || rule.rule.how.is !== 'by itself') return 0; // it was changed meanwhile
    // What it has not looked at yet may speak for a term.
    if (rule.looked?.factsVersion !== account.factsVersion) return 0;
    const { acted, trouble } = await tryToAct(deps, trx, account, { ...rule, bounds: rule.rule.how.bounds });
    if (await setRuleTrouble(trx, accountId, ruleId, trouble)) await raiseDecisionVersion(trx, accountId);
    return acted;
  });
}

type Outcome = { acted: number; trouble: string | null };

/** What is refused leaves the tray as it was, and is the rule's trouble. */
async function tryToAct(deps: Deps, trx: Db, account: Account, rule: ByItself): Promise<Outcome> {
  const standing = await whatStandsAgainst(trx, account, rule);
  if (standing !== null) return { acted: 0, trouble: standing };
  const wanted = await wantedBy(deps, trx, account, rule);
  if (wanted.length === 0) return { acted: 0, trouble: null };
  try {
    return await trx.transaction(async (inner) => ({
      acted: await act(deps, inner, account, { rule, wanted }),
      trouble: null,
    }));
  } catch (error) {
    if (!Refusal.is(error)) throw error;
    return { acted: 0, trouble: error.message };
  }
}

/** Why a rule may not act at all; null where it may. */
async function whatStandsAgainst(trx: Db, account: Account, { on }: ByItself): Promise<string | null> {
  if (account.platformAccountId === null)
    return 'Nothing was sent. Where a tray is handed over as a sheet, somebody has to carry it out: a rule does nothing by itself here.';
  const by = (await listMembers(trx, account.id)).find(({ id }) => id === on?.by);
  if (by && mayDo(by.role, 'send')) return null;
  return `Nothing was sent. ${by?.name ?? 'Whoever switched it on'} may not send any more. Somebody who may has to switch it off and on.`;
}

type WantedStop = { finding: StoredFinding; made: Change[]; changes: number; costMicros: number };

/** What the rule found and may stop today, the costliest first. */
async function wantedBy(deps: Deps, trx: Db, account: Account, rule: ByItself): Promise<WantedStop[]> {
  const open = await openWorkbench(deps, account, undefined, trx);
  const acts = (await listActs(trx, account.id)).filter(({ ruleId }) => ruleId === rule.id);
  const before = new Set(acts.map(({ term }) => term));
  const today = acts.filter(({ day }) => day === todayOf(deps, account));
  const inTray = new Set(open.drafted.map(({ change }) => changeKey(change)));
  const { rules, piles } = await findingsOf(deps, open, trx);
  const against = againstOf(rules, piles);
  const found = piles.open
    .filter(
      ({ ruleId, version, term }) => ruleId === rule.id && version === rule.version && !before.has(term),
    )
    .map((finding): WantedStop => {
      const made = changesOf(open, rule, finding);
      return { finding, made, changes: made.length, costMicros: finding.sums.costMicros ?? 0 };
    })
    .filter(
      ({ finding, made }) =>
        made.length > 0 &&
        against(finding).length === 0 && // somebody decides between two rules
        !made.some((change) => inTray.has(changeKey(change)) || holdsKeyword(open, change)),
    );
  return withinBounds(found, rule.bounds, {
    changes: today.reduce((sum, { changeIds }) => sum + changeIds.length, 0),
    costMicros: today.reduce((sum, { costMicros }) => sum + costMicros, 0),
  });
}

/** Whether a stop would shut a live keyword out by its own text, wherever that is: a rule leaves that to somebody. */
function holdsKeyword(open: Open, change: Change): boolean {
  if (change.kind === 'hang list') {
    const entries = negativesBroughtBy(change, open.draft.gate);
    return hurtsByCampaign(open, entries).has(change.campaignId!);
  }
  if (change.kind === 'add negative') return keywordsStoppedBy(open, change).length > 0;
  if (change.kind !== 'exclude product') return false;
  const code = codeKey(change.code);
  return open.snapshot.liveKeywords.some(({ text }) => codeKey(text) === code);
}

/** Sends what is drafted of it: what a protected term holds back, or is so by now, stays a finding. */
async function act(
  deps: Deps,
  trx: Db,
  account: Account,
  { rule, wanted }: { rule: ByItself; wanted: readonly WantedStop[] },
): Promise<number> {
  const personId = rule.on!.by;
  const why = `by the rule “${rule.name}”`;
  const isOfTerms = aboutOf(rule.rule) === 'terms';
  const outcomes = await draftWithin(deps, trx, account, {
    personId,
    wanted: wanted.flatMap(({ made, finding }) =>
      made.map((change) => ({ change, why, ...(isOfTerms && { from: finding.term }) })),
    ),
  });
  let at = 0;
  const acts = wanted.flatMap(({ finding: { term }, costMicros, changes }): RuleActed[] => {
    const of = outcomes.slice(at, (at += changes));
    const changeIds = of.flatMap((one) => (one.outcome === 'drafted' ? [one.changeId] : []));
    const day = todayOf(deps, account);
    return changeIds.length === 0
      ? []
      : [{ ruleId: rule.id, version: rule.version, term, day, costMicros, changeIds }];
  });
  if (acts.length === 0) return 0;
  await insertActs(trx, account.id, acts);
  const now = await lockAccount(trx, account.id); // with what was just drafted
  await sendWithin(deps, trx, now, personId, {
    ...{ only: acts.flatMap(({ changeIds }) => changeIds), rule: rule.id },
  });
  return acts.length;
}
