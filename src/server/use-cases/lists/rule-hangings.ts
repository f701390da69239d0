import { sayRule, type HangRule } from '@/core';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { appendLedger, type NewEntry } from '../../repositories/ledger';
import {
  deleteHangRule,
  insertHangRule,
  listHangRules,
  setHangRuleException,
} from '../../repositories/lists/hang-rules';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { requireList } from './known-lists';

/** Keeps a rule: from now on the list is proposed for every campaign that it is about. @returns its id */
export async function keepHangRule(
  deps: Deps,
  slug: string,
  personId: number,
  { list: listId, rule }: { list: string; rule: HangRule },
  undoes?: number,
): Promise<number> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { name } = requireList(open, listId);
  const accountId = open.account.id;
  return deps.db.transaction(async (trx) => {
    const same = (await listHangRules(trx, accountId)).find(
      (known) => known.listId === listId && sayRule(known.rule) === sayRule(rule),
    );
    if (same) return same.id;
    const id = await insertHangRule(trx, accountId, { listId, rule, personId });
    await note(trx, accountId, personId, {
      ...{ what: `${name} is to hang on ${sayRule(rule)}`, undo: { do: 'drop rule', rule: id }, undoes },
    });
    return id;
  });
}

export async function dropHangRule(
  deps: Deps,
  slug: string,
  personId: number,
  ruleId: number,
  undoes?: number,
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const rule = (await listHangRules(trx, accountId)).find(({ id }) => id === ruleId);
    if (!rule || !(await deleteHangRule(trx, accountId, ruleId)))
      throw new Refusal('This rule is not there any more.', 404);
    const { listId: list, except } = rule;
    await note(trx, accountId, personId, {
      what: `Dropped the rule that a list hangs on ${sayRule(rule.rule)}`,
      ...{ undo: { do: 'keep rule', list, rule: rule.rule, except }, undoes },
    });
  });
}

/** Leaves a campaign out of a rule, or lets the rule be about it again. */
export async function exceptFromRule(
  deps: Deps,
  slug: string,
  personId: number,
  ruleId: number,
  { campaign: campaignId, isOut }: { campaign: string; isOut: boolean },
  undoes?: number,
): Promise<void> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const accountId = open.account.id;
  const name = open.names.campaign(campaignId);
  if (name === undefined) throw new Refusal('This campaign is not there any more.', 404);
  await deps.db.transaction(async (trx) => {
    const rule = (await listHangRules(trx, accountId)).find(({ id }) => id === ruleId);
    if (!rule) throw new Refusal('This rule is not there any more.', 404);
    await setHangRuleException(trx, accountId, { ruleId, campaignId, isOut });
    const said = isOut ? `Left ${name} out of` : `Let ${name} be under`;
    await note(trx, accountId, personId, {
      what: `${said} the rule: ${sayRule(rule.rule)}`,
      ...{ undo: { do: 'except from rule', rule: ruleId, campaign: campaignId, isOut: !isOut }, undoes },
    });
  });
}

async function note(
  trx: Deps['db'],
  accountId: number,
  personId: number,
  entry: Pick<NewEntry, 'what' | 'undo' | 'undoes'>,
): Promise<void> {
  await appendLedger(trx, accountId, { actor: { person: personId }, about: 'rule', ...entry });
  await raiseDecisionVersion(trx, accountId);
}
