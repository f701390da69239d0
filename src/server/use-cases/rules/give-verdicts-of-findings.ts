import { group } from 'd3';
import type { WantedVerdict } from '@/contracts/decisions';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { findFindings } from '../../repositories/decisions/findings';
import { findRuleStates } from '../../repositories/decisions/rules';
import { findDataDays } from '../../repositories/intake/reports';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { giveVerdicts } from '../sift/give-verdicts';
import { verdictOfAction } from './verdict-of-action';

/**
 * Keeps open, or sets aside, the terms that rules found and want so; or takes that back. All in one go, with one ledger entry a rule.
 * @throws Refusal when none of these findings is there any more, or their rules want something else by now
 */
export async function giveVerdictsOfFindings(
  deps: Deps,
  slug: string,
  personId: number,
  { ids, is }: { ids: readonly number[]; is: 'given' | 'taken back' },
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const found = await findFindings(trx, id, ids);
    const rules = await findRuleStates(
      trx,
      id,
      found.map(({ ruleId }) => ruleId),
    );
    const afterDay = (await findDataDays(trx, id))?.to ?? '1970-01-01';
    const said: string[] = [];
    for (const [ruleId, some] of group(found, (one) => one.ruleId)) {
      const { name, rule } = rules.get(ruleId)!;
      const wanted = verdictOfAction(rule.then);
      if (wanted === null) continue;
      const why = `the rule “${name}”`;
      const verdict: WantedVerdict =
        is === 'taken back'
          ? { is: 'open' }
          : wanted.is === 'kept'
            ? { is: 'kept', note: `found by ${why}` }
            : wanted;
      said.push((await giveVerdicts(trx, id, some, { verdict, personId, afterDay, why })).said);
    }
    if (said.length === 0)
      throw new Refusal(
        'None of these findings is there any more, or their rules want something else by now. Look at them again.',
        409,
      );
    await raiseDecisionVersion(trx, id);
    return { said: said.join('; ') };
  });
}
