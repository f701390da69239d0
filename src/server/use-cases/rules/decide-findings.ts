import { group } from 'd3';
import { counted, shiftDay } from '@/core';
import type { FindingPile } from '@/contracts/findings';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { decideFindings as storeDecision } from '../../repositories/decisions/findings';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { todayOf } from '../tray/end-dates';

/** So many days a finding waits that is looked at later. */
const LATER_DAYS = 7;

/**
 * Refuses findings for a reason, which the rule keeps as an exception; lets them wait for a week; or opens them again.
 * @throws Refusal when none of them is there any more
 */
export async function decideFindings(
  deps: Deps,
  slug: string,
  personId: number,
  { ids, is, why }: { ids: readonly number[]; is: FindingPile; why: string },
  undoes?: number,
): Promise<{ said: string }> {
  const account = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const { id } = await lockAccount(trx, account.id);
    const until = is === 'later' ? shiftDay(todayOf(deps, account), LATER_DAYS) : null;
    const decided = await storeDecision(trx, id, ids, { is, until, why, personId });
    if (decided.length === 0)
      throw new Refusal('None of these findings is there any more: the rules have looked again.', 409);
    const terms = decided.length === 1 ? `“${decided[0]!.term}”` : counted(decided.length, 'finding');
    const said = SAYS[is](terms, until);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'rule', what: said, why: why || null, undoes },
      undo: {
        do: 'decide findings',
        findings: decided.map((one) => ({ id: one.id, is: one.was, why: one.why })),
      },
    });
    await raiseDecisionVersion(trx, id);
    return { said };
  });
}

const SAYS: Record<FindingPile, (terms: string, until: string | null) => string> = {
  open: (terms) => `Open again: ${terms}`,
  later: (terms, until) => `Looked at again on ${until}: ${terms}`,
  refused: (terms) => `Refused, and not proposed again: ${terms}`,
};

/** Puts findings back as they were, each pile in one go. */
export async function takeFindingsBack(
  deps: Deps,
  slug: string,
  personId: number,
  findings: readonly { id: number; is: FindingPile; why: string }[],
  undoes: number,
): Promise<void> {
  const before = group(findings, ({ is, why }) => `${is} ${why}`);
  for (const some of before.values()) {
    const { is, why } = some[0]!;
    await decideFindings(deps, slug, personId, { ids: some.map(({ id }) => id), is, why }, undoes);
  }
}
