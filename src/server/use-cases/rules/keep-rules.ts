import { group } from 'd3';
import { counted, type Rule } from '@/core';
import type { RuleState } from '@/contracts/rules';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import {
  findRuleStates,
  insertNextVersion,
  insertRule,
  listVersions,
  setRuleState,
} from '../../repositories/decisions/rules';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { permitPerson } from '../account/permit';
import { requireAccount } from '../open-workbench';

type Saved = { ruleId: number; version: number; said: string };

/**
 * Keeps a new rule, as a draft, switched on, or as a ready one to begin others from; one that is on looks at once.
 * @throws Refusal when it is to act by itself, and the person may not send
 */
export async function keepRule(
  deps: Deps,
  slug: string,
  personId: number,
  {
    name,
    rule,
    state,
    why = '',
  }: { name: string; rule: Rule; state: 'draft' | 'on' | 'ready'; why?: string },
): Promise<Saved> {
  const { id } = await requireAccount(deps, slug);
  if (state === 'on') await permitToAct(deps, slug, personId, rule);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const ruleId = await insertRule(trx, id, state, { name, rule, personId, why });
    const said = KEPT_AS[state](name);
    await appendLedger(trx, id, {
      ...{
        actor: { person: personId },
        about: 'rule',
        what: said,
        why: why || null,
        after: { name, rule, state },
      },
      undo: { do: 'set rule states', rules: [{ id: ruleId, state: 'removed' }] },
    });
    await raiseDecisionVersion(trx, id);
    if (state === 'on') await deps.enqueue(trx, { name: 'run-rules', accountId: id });
    return { ruleId, version: 1, said };
  });
}

const KEPT_AS: Record<'draft' | 'on' | 'ready', (name: string) => string> = {
  on: (name) => `Switched on: the rule “${name}”`,
  draft: (name) => `The rule “${name}” is a draft`,
  ready: (name) => `Kept as a ready one: the rule “${name}”`,
};

type Change = { ruleId: number; name: string; rule: Rule; version: number; why: string };

/**
 * Changes a rule: it becomes the next version, and what the one before found and nobody decided is looked for anew.
 * @throws Refusal when there is no such rule, or somebody else changed it meanwhile
 */
export async function changeRule(
  deps: Deps,
  slug: string,
  personId: number,
  { ruleId, version, ...change }: Change,
): Promise<Saved> {
  const what = `The rule “${change.name}” reads otherwise`;
  return insertNext(deps, slug, personId, { ...change, ruleId, left: version, what });
}

/**
 * Puts the words of an earlier version back, as a version of its own.
 * @throws Refusal when the rule was changed again since
 */
export async function putVersionBack(
  deps: Deps,
  slug: string,
  personId: number,
  { rule: ruleId, version, left }: { rule: number; version: number; left: number },
  undoes: number,
): Promise<Saved> {
  const { id } = await requireAccount(deps, slug);
  const was = (await listVersions(deps.db, id, ruleId)).find((one) => one.version === version);
  if (!was) throw new Refusal('This version is not kept.', 404);
  const { name, rule } = was;
  const what = `The rule “${name}” reads as in version ${version} again`;
  return insertNext(deps, slug, personId, { ruleId, name, rule, why: '', left, what, undoes });
}

async function insertNext(
  deps: Deps,
  slug: string,
  personId: number,
  next: Omit<Change, 'version'> & { left: number; what: string; undoes?: number },
): Promise<Saved> {
  const { id } = await requireAccount(deps, slug);
  const { ruleId, name, rule, why, left, what, undoes } = next;
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const there = (await findRuleStates(trx, id, [ruleId])).get(ruleId);
    if (!there || there.state === 'removed') throw new Refusal('There is no such rule any more.', 404);
    if (there.version !== left)
      throw new Refusal('Somebody has changed this rule meanwhile. Nothing was changed: look again.', 409);
    if (there.rule.about !== rule.about)
      throw new Refusal('What a rule is about stays: begin another one. Nothing was changed.');
    if (there.state === 'on') await permitToAct(deps, slug, personId, rule);
    const version = left + 1;
    await insertNextVersion(trx, id, { ruleId, version, name, rule, why, personId });
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what, why: why || null, undoes },
      after: { name, rule, version },
      undo: { do: 'put rule version back', rule: ruleId, version: left, left: version },
    });
    await raiseDecisionVersion(trx, id);
    if (there.state === 'on') await deps.enqueue(trx, { name: 'run-rules', accountId: id });
    return { ruleId, version, said: what };
  });
}

/** A rule that acts by itself sends in the name of whoever switches it on, who has to be one that may send. */
async function permitToAct(deps: Deps, slug: string, personId: number, rule: Rule | undefined) {
  if (rule?.how.is === 'by itself') await permitPerson(deps, slug, personId, 'send');
}

const SAYS: Record<RuleState, string> = {
  on: 'Switched on',
  off: 'Switched off',
  draft: 'A draft again',
  ready: 'A ready one again',
  removed: 'Removed',
};

/**
 * Switches rules on or off, makes them drafts, or removes them, all together.
 * @returns how those that changed were before
 * @throws Refusal when none of them is otherwise
 */
export async function setRuleStates(
  deps: Deps,
  slug: string,
  personId: number,
  wanted: readonly { id: number; state: RuleState }[],
  undoes?: number,
): Promise<{ said: string; was: { id: number; state: RuleState }[] }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const there = await findRuleStates(
      trx,
      id,
      wanted.map((one) => one.id),
    );
    for (const one of wanted)
      if (one.state === 'on') await permitToAct(deps, slug, personId, there.get(one.id)?.rule);
    const changed = wanted.filter((one) => there.has(one.id) && there.get(one.id)!.state !== one.state);
    if (changed.length === 0) throw new Refusal('These rules are so already, or are gone.', 409);
    for (const one of changed) await setRuleState(trx, id, one.id, { state: one.state, personId });
    const was = changed.map((one) => ({ id: one.id, state: there.get(one.id)!.state }));
    const said = sayStates(changed.map((one) => ({ name: there.get(one.id)!.name, state: one.state })));
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what: said, undoes },
      ...{ before: was, after: changed, undo: { do: 'set rule states', rules: was } },
    });
    await raiseDecisionVersion(trx, id);
    if (changed.some(({ state }) => state === 'on'))
      await deps.enqueue(trx, { name: 'run-rules', accountId: id });
    return { said, was };
  });
}

function sayStates(rules: readonly { name: string; state: RuleState }[]): string {
  const said = [...group(rules, ({ state }) => state)].map(([state, some]) => {
    const what = some.length === 1 ? `the rule “${some[0]!.name}”` : counted(some.length, 'rule');
    return `${SAYS[state]}: ${what}`;
  });
  return said.map((one, i) => (i === 0 ? one : one[0]!.toLowerCase() + one.slice(1))).join('; ');
}
