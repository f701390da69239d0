import { inverse } from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { lockAccount, raiseDecisionVersion } from '../../../repositories/account/accounts';
import { appendLedger } from '../../../repositories/ledger';
import { findOutsideChange, setOutsideChangeState } from '../../../repositories/structure/outside-changes';
import { Refusal, type Deps } from '../../deps';
import { draftChanges } from '../draft-changes';
import { requireAccount } from '../../open-workbench';

const SETTLED = 'This is settled already: another person took it over or undid it.';

/** A person has seen what others changed outside lists, and it may stay. */
export async function takeOverOutside(
  deps: Deps,
  slug: string,
  personId: number,
  ids: readonly number[],
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    for (const id of ids) {
      const found = await findOutsideChange(trx, accountId, id);
      if (!found || !(await setOutsideChangeState(trx, accountId, id, 'waits', 'taken over')))
        throw new Refusal(SETTLED, 409);
      await appendLedger(trx, accountId, {
        ...{
          actor: { person: personId },
          about: 'change',
          what: `Took over from somebody else: ${found.said}`,
        },
        ...{ after: found.change, undo: { do: 'let outside change wait', change: id } },
      });
    }
    await raiseDecisionVersion(trx, accountId);
  });
}

/** Puts the changes that take back what others changed in the tray. What can not be put in goes on waiting. */
export async function undoOutside(
  deps: Deps,
  slug: string,
  personId: number,
  ids: readonly number[],
  forcedBecause?: string,
): Promise<DraftOutcome[]> {
  const { id: accountId } = await requireAccount(deps, slug);
  const found = [];
  for (const id of ids) {
    const change = await findOutsideChange(deps.db, accountId, id);
    if (change?.state !== 'waits') throw new Refusal(SETTLED, 409);
    found.push(change);
  }
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    found.map(({ change }) => ({
      ...{ change: inverse(change), why: 'took back what somebody else changed', forcedBecause },
    })),
  );
  for (const [i, { outcome }] of outcomes.entries())
    if (outcome === 'drafted' || outcome === 'cancelled' || outcome === 'already there')
      await setOutsideChangeState(deps.db, accountId, found[i]!.id, 'waits', 'undone');
  await raiseDecisionVersion(deps.db, accountId);
  return outcomes;
}
