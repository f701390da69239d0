import { ascending, group } from 'd3';
import type { Knex } from 'knex';
import * as v from 'valibot';
import { counted, listed, type Rule, type Where } from '@/core';
import { RuleFileSchema, type BroughtRulesSchema, type RuleFile } from '@/contracts/rules';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { listRuleSets, replaceRuleSets, type RuleSet } from '../../repositories/decisions/rule-sets';
import { insertRule, listRules, type StoredRule } from '../../repositories/decisions/rules';
import { appendLedger } from '../../repositories/ledger';
import { loadMirror } from '../../repositories/structure/structure';
import { loadStanding, type Standing } from '../../compute/snapshot';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/**
 * Rules as a file, in which campaigns and lists stand by their names.
 * @throws Refusal when there is none, or one names what is gone
 */
export async function writeRuleFile(
  deps: Deps,
  slug: string,
  ids: readonly number[] | undefined,
): Promise<{ name: string; type: string; content: string }> {
  const { id } = await requireAccount(deps, slug);
  const rules = (await listRules(deps.db, id)).filter((one) => ids === undefined || ids.includes(one.id));
  if (rules.length === 0) throw new Refusal('There is no rule to save.', 404);
  const { campaigns, lists } = await loadMirror(deps.db, id);
  const callOf = (all: readonly { id: string; name: string }[], of: string) => (one: string) => {
    const there = all.find((each) => each.id === one);
    if (!there) throw new Refusal(`“${of}” names what is gone. Mend it, or save the others.`, 409);
    return there.name;
  };
  const file: RuleFile = {
    holds: 'rules of Gate Post',
    rules: inOrder(rules).map(({ name, rule, set }) => ({
      ...{ name, rule: renamed(rule, callOf(campaigns, name), callOf(lists, name)) },
      ...(set && { set: set.name }),
    })),
    ...placesOfSets(rules, (set) => callOf(campaigns, set)),
  };
  const name = rules.length === 1 ? `rule ${rules[0]!.name}.json` : `${slug} rules.json`;
  return { name, type: 'application/json', content: `${JSON.stringify(file, null, 2)}\n` };
}

/** Those of a set one after the other, in the order that says which wins. */
const inOrder = (rules: readonly StoredRule[]): StoredRule[] =>
  rules.toSorted(
    (a, b) => ascending(a.set?.name ?? '', b.set?.name ?? '') || (a.set?.rank ?? 0) - (b.set?.rank ?? 0),
  );

function placesOfSets(
  rules: readonly StoredRule[],
  campaignsOf: (set: string) => (id: string) => string,
): Pick<RuleFile, 'sets'> {
  const places = new Map(rules.flatMap(({ set }) => (set?.where ? [[set.name, set.where] as const] : [])));
  if (places.size === 0) return {};
  return { sets: [...places].map(([name, where]) => ({ name, where: inNames(where, campaignsOf(name)) })) };
}

/**
 * Brings the rules of a file, all as drafts or none, in the sets that it names.
 * @throws Refusal that names the place and what to do, when the file can not be read or names what is not here
 */
export async function bringRules(
  deps: Deps,
  slug: string,
  personId: number,
  text: string,
): Promise<v.InferOutput<typeof BroughtRulesSchema>> {
  const { id } = await requireAccount(deps, slug);
  const file = readRuleFile(text);
  const standing = await loadStanding(deps.db, id);
  const brought = file.rules.map(({ name, rule }, i) => ({
    ...{ name, rule: byIds(rule, standing, `rules[${i}]`) },
  }));
  const places = new Map(
    file.sets?.map(({ name, where }, i) => {
      if (file.rules.some(({ set }) => set === name))
        return [name, placeById(where, standing, `sets[${i}].where`)];
      throw new Refusal(`sets[${i}].name: no rule of the file is in a set “${name}”. Nothing was brought.`);
    }),
  );
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const ruleIds: number[] = [];
    for (const one of brought)
      ruleIds.push(await insertRule(trx, id, 'draft', { ...one, personId, why: 'from a file' }));
    const said = `${counted(brought.length, 'rule')} brought from a file, as ${brought.length === 1 ? 'a draft' : 'drafts'}`;
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what: said, after: brought },
      undo: { do: 'set rule states', rules: ruleIds.map((ruleId) => ({ id: ruleId, state: 'removed' })) },
    });
    const setsBefore = await bringSets(trx, id, personId, setsOf(file, ruleIds, places));
    await raiseDecisionVersion(trx, id);
    return { said, ruleIds, setsBefore };
  });
}

/** Adds sets to those that are there; one whose name is taken gets a number. @returns those; null where none is added */
async function bringSets(
  trx: Knex.Transaction,
  accountId: number,
  personId: number,
  sets: readonly RuleSet[],
): Promise<RuleSet[] | null> {
  if (sets.length === 0) return null;
  const before = await listRuleSets(trx, accountId);
  const taken = new Set(before.map(({ name }) => name));
  const made = sets.map((set) => ({ ...set, name: freeName(set.name, taken) }));
  const after = [...before, ...made];
  await replaceRuleSets(trx, accountId, after);
  const names = made.map(({ name }) => name);
  await appendLedger(trx, accountId, {
    ...{ actor: { person: personId }, about: 'rule', before, after },
    what: `Sets of rules brought from a file: ${listed(names, names.length)}`,
    undo: { do: 'set rule sets', sets: before },
  });
  return before;
}

const LONGEST_NAME = 80;

function freeName(name: string, taken: Set<string>): string {
  let free = name;
  for (let i = 2; taken.has(free); i++) {
    const number = ` ${i}`;
    free = name.slice(0, LONGEST_NAME - number.length) + number;
  }
  taken.add(free);
  return free;
}

function setsOf(
  { rules }: RuleFile,
  ruleIds: readonly number[],
  places: ReadonlyMap<string, Where>,
): RuleSet[] {
  const inSet = rules.flatMap(({ set }, i) => (set === undefined ? [] : [{ set, ruleId: ruleIds[i]! }]));
  return [...group(inSet, ({ set }) => set)].map(([name, some]) => ({
    ...{ name, where: places.get(name) ?? null },
    rules: some.map(({ ruleId }) => ruleId),
  }));
}

function readRuleFile(text: string): RuleFile {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Refusal(`This is no JSON: ${(error as Error).message}. Nothing was brought.`);
  }
  const read = v.safeParse(RuleFileSchema, json);
  if (read.success) return read.output;
  const [{ path, message }] = read.issues;
  const place = (path ?? [])
    .map(({ key }) => (typeof key === 'number' ? `[${key}]` : `.${String(key)}`))
    .join('')
    .replace(/^\./, '');
  throw new Refusal(`${place || 'The file'}: ${message} Nothing was brought.`);
}

function byIds(rule: Rule, standing: Standing, place: string): Rule {
  const list = found(standing.mirror.lists, nameOf, `${place}.rule.then.list: there is no list`);
  return {
    ...renamed(rule, String, (name) => list(name).id),
    where: placeById(rule.where, standing, `${place}.rule.where`),
  };
}

/** @param place in the file */
function placeById(where: Where, { mirror: { campaigns }, ownTargets }: Standing, place: string): Where {
  const labels = campaigns.flatMap((one) => one.labels);
  where.labels?.forEach(found(labels, String, `${place}.labels: there is no label`));
  where.productGroups?.forEach(
    found(ownTargets.productGroups, nameOf, `${place}.productGroups: there is no product group`),
  );
  const campaign = found(campaigns, nameOf, `${place}.campaigns: there is no campaign`);
  return inNames(where, (name) => campaign(name).id);
}

const nameOf = ({ name }: { name: string }) => name;

/** Finds what a file names. @throws Refusal with the place and what to do */
function found<Named>(
  all: readonly Named[],
  named: (one: Named) => string,
  says: string,
): (name: string) => Named {
  const byName = new Map(all.map((one) => [named(one), one]));
  return (name) => {
    const there = byName.get(name);
    if (there !== undefined) return there;
    throw new Refusal(
      `${says} “${name}” in this account. Take it out of the file, or name another. Nothing was brought.`,
    );
  };
}

function renamed(rule: Rule, campaign: (named: string) => string, list: (named: string) => string): Rule {
  const { where, then } = rule;
  return {
    ...rule,
    where: inNames(where, campaign),
    then: 'list' in then && then.list !== null ? { ...then, list: list(then.list) } : then,
  };
}

const inNames = (where: Where, campaign: (named: string) => string): Where => ({
  ...where,
  campaigns: where.campaigns.map(campaign),
});
