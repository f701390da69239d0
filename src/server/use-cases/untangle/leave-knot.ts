import type * as v from 'valibot';
import type { KnotBackSchema, LeaveKnotSchema } from '@/contracts/untangle';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { deleteLeftKnot, insertLeftKnot } from '../../repositories/decisions/left-knots';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { todayOf } from '../tray/end-dates';
import { findConflicts, type FoundConflict } from './find-conflicts';
import { stateOf } from './view-conflicts';

/**
 * Leaves a conflict as it is, with a reason, up to a day or until it is otherwise.
 * @throws Refusal when there is no such conflict any more, or the day is past; nothing was changed then
 */
export async function leaveKnot(
  deps: Deps,
  slug: string,
  personId: number,
  { key, why, until, days }: v.InferOutput<typeof LeaveKnotSchema>,
): Promise<Record<never, never>> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, days);
  const conflict = await requireConflict(deps, open, key);
  if (until !== null && until < todayOf(deps, account))
    throw new Refusal('The day is past. Choose a later one. Nothing was changed.');
  await deps.db.transaction(async (trx) => {
    await insertLeftKnot(trx, account.id, { key, why, until, state: stateOf(conflict), personId });
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'knot', why },
      what: `Leave ${sayConflict(conflict)}${until === null ? '' : ` until ${until}`}`,
      undo: { do: 'take knot back', key },
    });
    await raiseDecisionVersion(trx, account.id);
  });
  return {};
}

/** Takes up a conflict again that was left. @throws Refusal when it is not left any more */
export async function takeKnotBack(
  deps: Deps,
  slug: string,
  personId: number,
  key: string,
  undoes?: number,
): Promise<v.InferOutput<typeof KnotBackSchema>> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const was = await deleteLeftKnot(trx, id, key);
    if (!was) throw new Refusal('This is not left any more. Nothing was changed.', 409);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'knot', what: `Take up a conflict again: ${key}` },
      undoes,
    });
    await raiseDecisionVersion(trx, id);
    return was;
  });
}

/** @throws Refusal when there is no such conflict any more */
export async function requireConflict(deps: Deps, open: Open, key: string): Promise<FoundConflict> {
  const conflict = (await findConflicts(deps, open)).find((one) => one.key === key);
  if (!conflict) throw new Refusal('This conflict is not there any more. Look again.', 404);
  return conflict;
}

export function sayConflict({ negative, keyword, protectedTexts }: FoundConflict): string {
  const against = keyword ? `“${keyword.text}” (${keyword.match})` : `“${protectedTexts[0]}”`;
  return `“${negative.text}” (${negative.match}) against ${against}`;
}
