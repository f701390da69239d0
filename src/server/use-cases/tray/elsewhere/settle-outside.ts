import { inverse } from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { lockAccount, raiseDecisionVersion } from '../../../repositories/account/accounts';
import { appendAllToLedger } from '../../../repositories/ledger';
import { findOutsideChanges, setOutsideChangeStates } from '../../../repositories/structure/outside-changes';
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
    const found = await findOutsideChanges(trx, accountId, ids);
    const settled = await setOutsideChangeStates(trx, accountId, ids, 'waits', 'taken over');
    if (settled < new Set(ids).size) throw new Refusal(SETTLED, 409);
    await appendAllToLedger(
      trx,
      accountId,
      found.map(({ id, said, change }) => ({
        ...{ actor: { person: personId }, about: 'change', what: `Took over from somebody else: ${said}` },
        ...{ after: change, undo: { do: 'let outside change wait', change: id } },
      })),
    );
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
  const found = await findOutsideChanges(deps.db, accountId, ids);
  const isOpen = found.length === new Set(ids).size && found.every(({ state }) => state === 'waits');
  if (!isOpen) throw new Refusal(SETTLED, 409);
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    found.map(({ change }) => ({
      ...{ change: inverse(change), why: 'took back what somebody else changed', forcedBecause },
    })),
  );
  const undone = found.filter((_, i) =>
    ['drafted', 'cancelled', 'already there'].includes(outcomes[i]!.outcome),
  );
  await setOutsideChangeStates(
    deps.db,
    accountId,
    undone.map(({ id }) => id),
    'waits',
    'undone',
  );
  await raiseDecisionVersion(deps.db, accountId);
  return outcomes;
}
