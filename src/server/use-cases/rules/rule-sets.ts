import { isDeepStrictEqual } from 'node:util';
import { listed } from '@/core';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { forgetLooks } from '../../repositories/decisions/findings';
import { findRuleStates } from '../../repositories/decisions/rules';
import { listRuleSets, replaceRuleSets, type RuleSet } from '../../repositories/decisions/rule-sets';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/**
 * Puts the rules of an account into sets: all of them at once, in their order. Rules that look elsewhere by it look anew.
 * @param undoes the entry of the ledger that is taken back by it
 * @throws Refusal when two sets have one name, a rule is in two, or one is gone
 */
export async function setRuleSets(
  deps: Deps,
  slug: string,
  personId: number,
  sets: readonly RuleSet[],
  undoes?: number,
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const ids = sets.flatMap(({ rules }) => rules);
    const there = await findRuleStates(trx, id, ids);
    refuseTwice(
      sets.map(({ name }) => name),
      (name) => `Two sets are called “${name}”.`,
    );
    refuseTwice(ids, (rule) => `The rule “${there.get(rule)?.name ?? rule}” would be in two sets.`);
    if (ids.some((rule) => (there.get(rule)?.state ?? 'removed') === 'removed'))
      throw new Refusal('One of these rules is gone. Nothing was changed: look again.', 409);
    const before = await listRuleSets(trx, id);
    await replaceRuleSets(trx, id, sets);
    const elsewhere = looksElsewhere(before, sets);
    await forgetLooks(trx, id, elsewhere);
    const said = sayChange(before, sets);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what: said, before, after: sets, undoes },
      undo: { do: 'set rule sets', sets: before },
    });
    await raiseDecisionVersion(trx, id);
    if (elsewhere.length > 0) await deps.enqueue(trx, { name: 'run-rules', accountId: id });
    return { said };
  });
}

/** Puts sets back as they were, with those of their rules that are still there. */
export async function putRuleSetsBack(
  deps: Deps,
  slug: string,
  personId: number,
  sets: readonly RuleSet[],
  undoes: number,
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  const there = await findRuleStates(
    deps.db,
    id,
    sets.flatMap(({ rules }) => rules),
  );
  const left = sets.map((set) => ({
    ...set,
    rules: set.rules.filter((rule) => (there.get(rule)?.state ?? 'removed') !== 'removed'),
  }));
  return setRuleSets(deps, slug, personId, left, undoes);
}

function refuseTwice<T>(all: readonly T[], says: (one: T) => string): void {
  const twice = all.find((one, i) => all.indexOf(one) !== i);
  if (twice !== undefined) throw new Refusal(`${says(twice)} Nothing was changed.`);
}

/** Ids of the rules that look somewhere else than before. */
function looksElsewhere(before: readonly RuleSet[], after: readonly RuleSet[]): number[] {
  const placesOf = (sets: readonly RuleSet[]) =>
    new Map(sets.flatMap(({ where, rules }) => rules.map((rule) => [rule, where] as const)));
  const [was, is] = [placesOf(before), placesOf(after)];
  const all = new Set([...was.keys(), ...is.keys()]);
  return [...all].filter((rule) => !isDeepStrictEqual(was.get(rule) ?? null, is.get(rule) ?? null));
}

/** What is another, by the names of sets. */
function sayChange(before: readonly RuleSet[], after: readonly RuleSet[]): string {
  const namesOf = (sets: readonly RuleSet[]) => sets.map(({ name }) => name);
  const made = namesOf(after).filter((name) => !namesOf(before).includes(name));
  const gone = namesOf(before).filter((name) => !namesOf(after).includes(name));
  const other = after.filter((set) => {
    const was = before.find(({ name }) => name === set.name);
    return was && !isDeepStrictEqual(was, set);
  });
  const parts = [
    made.length > 0 && `made ${listed(made, made.length)}`,
    gone.length > 0 && `removed ${listed(gone, gone.length)}`,
    other.length > 0 && `changed ${listed(namesOf(other), other.length)}`,
  ].filter(Boolean);
  return `Sets of rules: ${parts.join(', ') || 'as before'}`;
}
