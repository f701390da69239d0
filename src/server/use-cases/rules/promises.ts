import { breaksPromise, formatAmount, isPromising, type Kept } from '@/core';
import type { RuleAct, RuleActs } from '@/contracts/findings';
import { aboutOf } from '../../compute/rules/term-facts';
import type { Account } from '../../repositories/account/accounts';
import { lockAccount, raiseDecisionVersion, requireAccountById } from '../../repositories/account/accounts';
import { listActs, type StoredAct } from '../../repositories/decisions/rule-acts';
import { findRuleStates, listRules, stopRule } from '../../repositories/decisions/rules';
import { appendLedger } from '../../repositories/ledger';
import type { Deps } from '../deps';
import type { ActingChange } from '../ledger/saved/acting';
import { figuresOf, likelyOf } from '../ledger/saved/figures';
import { reckonOf, type Saved } from '../ledger/saved/reckon';
import { openWorkbench, requireAccount } from '../open-workbench';
import { actsByItself } from './act-by-itself';
import { sayFound } from './findings';

/** More than that nobody reads. */
const MOST_LINES = 2_000;

/** What rules did by themselves, and what each promised and brought since it was switched on (rules 13.4). */
export async function viewActs(deps: Deps, slug: string): Promise<RuleActs> {
  const account = await requireAccount(deps, slug);
  const acts = await listActs(deps.db, account.id);
  if (acts.length === 0) return { acts: [], rules: [] };
  const saved = await reckonOf(deps, account);
  const rules = await listRules(deps.db, account.id);
  const open = await openWorkbench(deps, account);
  const told = acts.slice(0, MOST_LINES).map((act): RuleAct => {
    const { ruleId, rule, version, day, changeIds, entry, sentence } = act;
    const term = sayFound(open, aboutOf(sentence), act.term);
    return {
      ...{ ruleId, rule, version, term, day, changes: changeIds.length, entry },
      ...{ state: stateOf(act), isPromising: isPromising(sentence.then), ...keptOf(saved, [act]) },
    };
  });
  return {
    acts: told,
    rules: rules.flatMap(({ id, name, on }) => {
      const since = acts.filter(({ ruleId, at }) => ruleId === id && on !== null && at >= on.since);
      return since.length === 0 ? [] : [{ ruleId: id, name, terms: since.length, ...keptOf(saved, since) }];
    }),
  };
}

/** Changes of some acts after which data have come. */
function changesIn(saved: Saved | null, acts: readonly StoredAct[]): ActingChange[] {
  const ids = new Set(acts.flatMap(({ changeIds }) => changeIds));
  return saved?.changes.filter(({ sent }) => ids.has(sent.id)) ?? [];
}

/** What some acts promised, and what came; null where no data have come since, or nothing was foreseen. */
function keptOf(
  saved: Saved | null,
  acts: readonly StoredAct[],
): { promisedMicros: number | null; cameMicros: number | null; days: number } {
  const changes = changesIn(saved, acts);
  if (!saved || changes.length === 0) return { promisedMicros: null, cameMicros: null, days: 0 };
  const { predictedMicros, realMicros, days } = figuresOf(saved, changes);
  return { promisedMicros: predictedMicros, cameMicros: realMicros, days };
}

function stateOf({ states, isUndone }: StoredAct): RuleAct['state'] {
  if (isUndone) return 'taken back';
  if (states.includes('there') || states.includes('said')) return 'in force';
  return states.every((state) => state === 'refused') ? 'refused' : 'on its way';
}

/**
 * Switches those rules off that act by themselves and brought less than they promised by more than their bounds allow, since they
 * were switched on. Each says so, in the ledger too.
 * @returns how many it were
 */
export async function holdToPromises(deps: Deps, accountId: number): Promise<number> {
  const acting = (await listRules(deps.db, accountId)).filter(actsByItself);
  if (acting.length === 0) return 0;
  const acts = await listActs(deps.db, accountId);
  if (acts.length === 0) return 0;
  const account = await requireAccountById(deps.db, accountId);
  const saved = await reckonOf(deps, account);
  let stopped = 0;
  for (const { id, version, rule, on } of acting) {
    if (rule.how.is !== 'by itself' || on === null) continue;
    const kept = promiseOf(
      saved,
      acts.filter(({ ruleId, at }) => ruleId === id && at >= on.since),
    );
    const { leastKept } = rule.how.bounds;
    if (!kept || !breaksPromise(kept, leastKept)) continue;
    if (await stopItself(deps, account, { id, version, why: sayBroken(kept, leastKept, account.currency) }))
      stopped += 1;
  }
  return stopped;
}

/** What some acts promised and what came of it, with what chance explains; null where nothing is known yet. */
function promiseOf(saved: Saved | null, acts: readonly StoredAct[]): Kept | null {
  const { promisedMicros, cameMicros, days } = keptOf(saved, acts);
  if (!saved || promisedMicros === null || cameMicros === null) return null;
  // Each change goes astray by itself.
  const astray = changesIn(saved, acts).map((change) => {
    const figures = figuresOf(saved, [change]);
    const likely = likelyOf(change, figures.days);
    return likely === null ? 0 : (figures.predictedMicros ?? 0) - likely[0];
  });
  return { promisedMicros, cameMicros, days, leastMicros: promisedMicros - Math.hypot(...astray) };
}

function sayBroken({ promisedMicros, cameMicros, days }: Kept, leastKept: number, currency: string): string {
  const money = (micros: number) => `${formatAmount(micros, currency)} ${currency}`;
  return `It promised ${money(promisedMicros)} in ${days} days, and ${money(cameMicros)} came: less than the ${Math.round(100 * leastKept)} % that have to.`;
}

async function stopItself(
  deps: Deps,
  { id: accountId }: Account,
  { id: ruleId, version, why }: { id: number; version: number; why: string },
): Promise<boolean> {
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const now = (await findRuleStates(trx, accountId, [ruleId])).get(ruleId);
    if (now?.state !== 'on' || now.version !== version) return false; // somebody was quicker
    await stopRule(trx, accountId, ruleId, why);
    await appendLedger(trx, accountId, {
      ...{ actor: { rule: ruleId }, about: 'rule', what: `Switched itself off: the rule “${now.name}”`, why },
      undo: { do: 'set rule states', rules: [{ id: ruleId, state: 'on' }] },
    });
    await raiseDecisionVersion(trx, accountId);
    return true;
  });
}
