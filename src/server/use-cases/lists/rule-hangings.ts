import { sayRule, type HangRule } from '@/core';
import { raiseDecisionVersion } from '../../repositories/accounts';
import { appendLedger } from '../../repositories/ledger';
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
    await note(trx, accountId, personId, `${name} is to hang on ${sayRule(rule)}`);
    return id;
  });
}

export async function dropHangRule(
  deps: Deps,
  slug: string,
  personId: number,
  ruleId: number,
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const rule = (await listHangRules(trx, accountId)).find(({ id }) => id === ruleId);
    if (!rule || !(await deleteHangRule(trx, accountId, ruleId)))
      throw new Refusal('This rule is not there any more.', 404);
    await note(trx, accountId, personId, `Dropped the rule that a list hangs on ${sayRule(rule.rule)}`);
  });
}

/** Leaves a campaign out of a rule, or lets the rule be about it again. */
export async function exceptFromRule(
  deps: Deps,
  slug: string,
  personId: number,
  ruleId: number,
  { campaign: campaignId, isOut }: { campaign: string; isOut: boolean },
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
    await note(trx, accountId, personId, `${said} the rule: ${sayRule(rule.rule)}`);
  });
}

async function note(trx: Deps['db'], accountId: number, personId: number, what: string): Promise<void> {
  await appendLedger(trx, accountId, { actor: { person: personId }, about: 'mark', what });
  await raiseDecisionVersion(trx, accountId);
}
