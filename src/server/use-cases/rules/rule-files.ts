import * as v from 'valibot';
import { counted, type Rule } from '@/core';
import { RuleFileSchema, type RuleFile } from '@/contracts/rules';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { insertRule, listRules } from '../../repositories/decisions/rules';
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
  const nameOf = (all: readonly { id: string; name: string }[], of: string) => (one: string) => {
    const there = all.find((each) => each.id === one);
    if (!there) throw new Refusal(`The rule “${of}” names what is gone. Mend it, or save the others.`, 409);
    return there.name;
  };
  const file: RuleFile = {
    holds: 'rules of Gate Post',
    rules: rules.map(({ name, rule }) => ({
      name,
      rule: renamed(rule, nameOf(campaigns, name), nameOf(lists, name)),
    })),
  };
  const name = rules.length === 1 ? `rule ${rules[0]!.name}.json` : `${slug} rules.json`;
  return { name, type: 'application/json', content: `${JSON.stringify(file, null, 2)}\n` };
}

/**
 * Brings the rules of a file, all as drafts or none.
 * @throws Refusal that names the place and what to do, when the file can not be read or names what is not here
 */
export async function bringRules(
  deps: Deps,
  slug: string,
  personId: number,
  text: string,
): Promise<{ said: string; ruleIds: number[] }> {
  const { id } = await requireAccount(deps, slug);
  const { rules } = readRuleFile(text);
  const standing = await loadStanding(deps.db, id);
  const brought = rules.map(({ name, rule }, i) => ({ name, rule: byIds(rule, standing, `rules[${i}]`) }));
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const ruleIds: number[] = [];
    for (const one of brought)
      ruleIds.push(await insertRule(trx, id, 'draft', { ...one, personId, why: 'from a file' }));
    const said = `${counted(rules.length, 'rule')} brought from a file, as ${rules.length === 1 ? 'a draft' : 'drafts'}`;
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what: said, after: brought },
      undo: { do: 'set rule states', rules: ruleIds.map((ruleId) => ({ id: ruleId, state: 'removed' })) },
    });
    await raiseDecisionVersion(trx, id);
    return { said, ruleIds };
  });
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

function byIds(rule: Rule, { mirror: { campaigns, lists }, ownTargets }: Standing, place: string): Rule {
  const found = <Named>(
    all: readonly Named[],
    nameOf: (one: Named) => string,
    what: string,
    where: string,
  ) => {
    const byName = new Map(all.map((one) => [nameOf(one), one]));
    return (name: string): Named => {
      const there = byName.get(name);
      if (there !== undefined) return there;
      throw new Refusal(
        `${place}.rule.${where}: there is no ${what} “${name}” in this account. Take it out of the file, or name another. Nothing was brought.`,
      );
    };
  };
  const named = ({ name }: { name: string }) => name;
  const { labels = [], productGroups = [] } = rule.where;
  labels.forEach(
    found(
      campaigns.flatMap((one) => one.labels),
      String,
      'label',
      'where.labels',
    ),
  );
  productGroups.forEach(found(ownTargets.productGroups, named, 'product group', 'where.productGroups'));
  const campaign = found(campaigns, named, 'campaign', 'where.campaigns');
  const list = found(lists, named, 'list', 'then.list');
  return renamed(
    rule,
    (name) => campaign(name).id,
    (name) => list(name).id,
  );
}

function renamed(rule: Rule, campaign: (named: string) => string, list: (named: string) => string): Rule {
  const { where, then } = rule;
  return {
    ...rule,
    where: { ...where, campaigns: where.campaigns.map(campaign) },
    then: then.do === 'stop in list' ? { ...then, list: list(then.list) } : then,
  };
}
