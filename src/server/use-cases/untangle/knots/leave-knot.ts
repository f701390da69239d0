import type * as v from 'valibot';
import { counted } from '@/core';
import type { KnotBackSchema, LeftKind, LeaveKnotSchema } from '@/contracts/knots';
import { raiseDecisionVersion, type Account } from '../../../repositories/account/accounts';
import { deleteLeftKnot, insertLeftKnot } from '../../../repositories/decisions/knots';
import { appendLedger } from '../../../repositories/ledger';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount } from '../../open-workbench';
import { todayOf } from '../../tray/end-dates';
import { findKnot } from './find-knots';

const NAMES: Record<LeftKind, string> = {
  ...{ conflict: 'a conflict', needless: 'a needless negative', misspelt: 'a misspelt negative' },
  ...{ duplicate: 'a keyword that stands twice', overlap: 'a search term that is served by several' },
  promotion: 'a search term that is not to be promoted',
  keyword: 'an exact keyword that misses its target',
};

/**
 * Leaves a knot as it is, with a reason, up to a day or until it is otherwise.
 * @throws Refusal when there is no such knot any more, or the day is past; nothing was changed then
 */
export async function leaveKnot(
  deps: Deps,
  slug: string,
  personId: number,
  { kind, key, why, until, days, moreClicks }: v.InferOutput<typeof LeaveKnotSchema>,
): Promise<Record<never, never>> {
  const account = await requireAccount(deps, slug);
  const found = await findKnot(deps, await openWorkbench(deps, account, days), { kind, key });
  const { says } = found;
  const state = moreClicks === undefined ? found.state : String(Number(found.state) + moreClicks);
  if (until !== null && until < todayOf(deps, account))
    throw new Refusal('The day is past. Choose a later one. Nothing was changed.');
  await deps.db.transaction(async (trx) => {
    await insertLeftKnot(trx, account.id, { kind, key, why, until, state, personId });
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'knot', why },
      what: `Leave ${says}${until === null ? '' : ` until ${until}`}${moreClicks === undefined ? '' : ` until it has ${counted(moreClicks, 'more click')}`}`,
      undo: { do: 'take knot back', kind, key },
    });
    await raiseDecisionVersion(trx, account.id);
  });
  return {};
}

/** Takes up a knot again that was left. @throws Refusal when it is not left any more */
export async function takeKnotBack(
  deps: Deps,
  slug: string,
  personId: number,
  { kind, key }: { kind: LeftKind; key: string },
  undoes?: number,
): Promise<v.InferOutput<typeof KnotBackSchema>> {
  const account = await requireAccount(deps, slug);
  const { id } = account;
  const { says, state } = await sayKnot(deps, account, { kind, key });
  return deps.db.transaction(async (trx) => {
    const was = await deleteLeftKnot(trx, id, { kind, key });
    if (!was) throw new Refusal('This is not left any more. Nothing was changed.', 409);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'knot', what: `Take up again ${says}` },
      undoes,
    });
    await raiseDecisionVersion(trx, id);
    const { state: left, ...how } = was;
    return kind === 'keyword' ? { ...how, moreClicks: Math.max(1, Number(left) - Number(state)) } : how;
  });
}

/** As the ledger names it; one that is there no more, by what it was and its key. */
async function sayKnot(
  deps: Deps,
  account: Account,
  knot: { kind: LeftKind; key: string },
): Promise<{ says: string; state: string }> {
  try {
    return await findKnot(deps, await openWorkbench(deps, account), knot);
  } catch (error) {
    if (error instanceof Refusal) return { says: `${NAMES[knot.kind]}: ${knot.key}`, state: '0' };
    throw error;
  }
}
