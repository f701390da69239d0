import { readyRules } from '@/core';
import type { RuleLine, RulesView, RuleVersionsView } from '@/contracts/rules';
import { groundOf } from '../../compute/evidence/evidence';
import { missingOf, withinSet } from '../../compute/rules/rule-places';
import { listRules, listVersions } from '../../repositories/decisions/rules';
import { listRuleSets } from '../../repositories/decisions/rule-sets';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { findingsOf } from './findings';

/** Rules as they hold, ready ones with their numbers for this account, and what a sentence can name. */
export async function viewRules(deps: Deps, slug: string): Promise<RulesView> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account);
  const { mirror } = open.snapshot;
  const { open: found } = (await findingsOf(deps, open)).piles;
  const kept = await listRules(deps.db, account.id);
  const rules = kept
    .filter(({ state }) => state !== 'ready')
    .map(({ looked, on: _, set, ...one }): RuleLine => ({
      ...one,
      set: set?.name ?? null,
      waitsFor: missingOf(withinSet({ rule: one.rule, set }), open.snapshot),
      looked: looked?.evening ?? null,
      open: found.filter(({ ruleId }) => ruleId === one.id).length,
    }));
  const own = kept
    .filter(({ state }) => state === 'ready')
    .map(({ id, name, rule, why, by }) => ({ ruleId: id, name, rule, reason: why || `Kept by ${by}.` }));
  const { prior } = groundOf(open.snapshot);
  const campaigns = mirror.campaigns.filter(({ status }) => status !== 'removed');
  const named = (all: readonly { id: string; name: string }[]) =>
    all.map(({ id, name }) => ({ id, name })).sort((a, b) => (a.name < b.name ? -1 : 1));
  return {
    rules,
    sets: await listRuleSets(deps.db, account.id),
    ready: [
      ...own,
      ...readyRules({
        cvr: prior && prior.alpha / (prior.alpha + prior.beta),
        lagDays: account.lagDays,
        hasTarget: (account.steersBy === 'CPA' ? account.targetMicros : account.targetAcos) !== null,
      }).map((one) => ({ ...one, ruleId: null })),
    ],
    campaigns: named(campaigns),
    labels: [...new Set(campaigns.flatMap(({ labels }) => labels))].sort(),
    productGroups: open.snapshot.ownTargets.productGroups.map(({ name }) => name),
    lists: named(mirror.lists),
  };
}

/** What a rule was before, the newest version first. */
export async function viewVersions(deps: Deps, slug: string, ruleId: number): Promise<RuleVersionsView> {
  const { id } = await requireAccount(deps, slug);
  const versions = await listVersions(deps.db, id, ruleId);
  if (versions.length === 0) throw new Refusal('There is no such rule.', 404);
  return { versions };
}
