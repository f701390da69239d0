import { budgetOfRule, formatAmount, smallestUnitOf, type Change, type Rule } from '@/core';
import { ownBudgetOf } from '../../compute/rules/tried-rules';
import type { StoredFinding } from '../../repositories/decisions/findings';
import type { Open } from '../open-workbench';

/** Whether a campaign that a rule found is still live, is in no change of the tray, and can get what the rule wants. */
export function waitsForCampaign(open: Open, rule: Rule, { term: id }: StoredFinding): boolean {
  if (open.snapshot.campaign.get(id)?.status !== 'live') return false;
  if (open.drafted.some(({ change }) => change.kind === 'set budget' && change.campaignId === id))
    return false;
  return rule.then.do !== 'raise budget' || changeOf(open, rule, id) !== null;
}

/** A campaign that a rule found: what a yes puts in the tray, and what would become of it in words. */
export function ofCampaign(
  open: Open,
  rule: Rule,
  { term: id }: StoredFinding,
): { term: string; changes: Change[]; place: string } {
  const change = changeOf(open, rule, id);
  return {
    term: sayCampaign(open, id),
    changes: change ? [change] : [],
    place: sayBecomes(open, change),
  };
}

/** How findings call a campaign. */
export const sayCampaign = ({ names }: Pick<Open, 'names'>, id: string): string =>
  names.campaign(id) ?? 'a campaign that is gone';

type BudgetChange = Extract<Change, { kind: 'set budget' }>;

function changeOf({ snapshot, account }: Open, { then }: Rule, campaignId: string): BudgetChange | null {
  const campaign = snapshot.campaign.get(campaignId);
  const wasMicros = campaign ? ownBudgetOf(campaign) : null;
  if (then.do !== 'raise budget' || wasMicros === null) return null;
  const budgetMicros = budgetOfRule(then, wasMicros, smallestUnitOf(account.currency));
  return budgetMicros === null ? null : { kind: 'set budget', campaignId, budgetMicros, wasMicros };
}

function sayBecomes({ account: { currency } }: Open, change: BudgetChange | null): string {
  if (!change) return 'nothing: the rule only tells';
  const [is, was] = [change.budgetMicros, change.wasMicros].map((micros) => formatAmount(micros, currency));
  return `a budget of ${is} a day, was ${was}`;
}
