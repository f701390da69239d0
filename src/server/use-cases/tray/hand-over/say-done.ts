import { counted } from '@/core';
import { moveSet } from '../../../repositories/tray/change-sets';
import { loadChangesOf, moveChanges, type StoredChange } from '../../../repositories/tray/changes';
import { appendAllToLedger, appendLedger } from '../../../repositories/ledger';
import { Refusal, type Deps } from '../../deps';
import { draftAgain } from '../draft-again';
import { putBack } from '../put-back';
import { tellOf } from '../tell-ledger';
import { onSet } from './on-set';

/** Trays of an account without a platform: handed over as a sheet, said to be done, shown by a structure file. */

/**
 * A person says that a tray which was handed over has been carried out: from now on it counts as in force, as said to
 * be done.
 * @throws Refusal when it is not one that was handed over
 */
export async function sayDone(deps: Deps, slug: string, personId: number, setId: number): Promise<void> {
  await onSet(deps, slug, setId, async (trx, open) => {
    const { id } = open.account;
    if (!(await moveSet(trx, id, setId, 'handed over', 'said to be done')))
      throw new Refusal('This was said already, or taken back. It is shown here as it stands now.', 409);
    await moveChanges(trx, id, setId, 'drafted', 'said');
    const changes = await loadChangesOf(trx, id, setId);
    await appendAllToLedger(
      trx,
      id,
      changes.map((stored) => ({
        ...tellOf(stored, open.names),
        ...{ actor: { person: personId }, after: { state: 'said' } },
      })),
    );
  });
}

/** What was said to be done is only handed over after all. @throws Refusal when a structure file has shown it since */
export async function unsayDone(deps: Deps, slug: string, personId: number, setId: number): Promise<void> {
  await onSet(deps, slug, setId, async (trx, open) => {
    const { id } = open.account;
    if (!(await moveSet(trx, id, setId, 'said to be done', 'handed over')))
      throw new Refusal(
        'A structure file has shown since what became of it. It is undone in the Ledger.',
        409,
      );
    await moveChanges(trx, id, setId, 'said', 'drafted');
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'change' },
      what: `Not done after all: ${counted((await loadChangesOf(trx, id, setId)).length, 'change')} handed over`,
    });
  });
}

/**
 * Puts changes that were not delivered back in the tray: of a tray that was handed over those chosen, or all; of one that
 * the platform did not take what it has not answered. What was found missing or different is drafted anew, for what
 * became of it stands in the Ledger.
 * @returns how many are in the tray again
 * @throws Refusal when nothing of it can be taken back
 */
export async function takeBackToDraft(
  deps: Deps,
  slug: string,
  personId: number,
  setId: number,
  changeIds?: readonly number[],
): Promise<{ said: string }> {
  return onSet(deps, slug, setId, async (trx, open, set) => {
    const { id } = open.account;
    if (set.state === 'sending' && set.trouble === null)
      throw new Refusal('This is being sent just now. Wait until it is answered.', 409);
    const chosen = changeIds && new Set(changeIds);
    const wanted = (await loadChangesOf(trx, id, setId)).filter((c) => !chosen || chosen.has(c.id));
    const back = wanted.filter((c) => c.state === 'drafted' || c.state === 'said');
    const anew = await draftAgain(trx, id, wanted.filter(isLost));
    if (back.length + anew === 0)
      throw new Refusal('All of it was answered or shown already, or is in the tray.', 409);
    await putBack(trx, id, setId, back);
    const said = `${counted(back.length + anew, 'change')} back in the tray`;
    await appendLedger(trx, id, { actor: { person: personId }, about: 'change', what: said });
    return { said };
  });
}

/** Whether a change that was delivered was not found as it should be. */
export function isLost({ state }: Pick<StoredChange, 'state'>): boolean {
  return state === 'missing' || state === 'different';
}
