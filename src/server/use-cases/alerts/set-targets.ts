import { randomBytes } from 'node:crypto';
import type { AlertsView, AlertTarget } from '@/contracts/alerts';
import { lockAccount } from '../../repositories/account/accounts';
import { listAlerts } from '../../repositories/alerts/alerts';
import { listDeliveries } from '../../repositories/alerts/deliveries';
import { insertTarget, listTargets, setRemoved, updateTarget } from '../../repositories/alerts/targets';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

const [MOST_ALERTS, MOST_DELIVERIES] = [100, 100];

/** What came up, who is told, and what became of each delivery; secrets are told once, when they are made. */
export async function viewAlerts(deps: Deps, slug: string): Promise<AlertsView> {
  const { id } = await requireAccount(deps, slug);
  return {
    alerts: await listAlerts(deps.db, id, MOST_ALERTS),
    targets: (await listTargets(deps.db, id)).map(({ secret: _, ...target }) => target),
    deliveries: await listDeliveries(deps.db, id, MOST_DELIVERIES),
    mail: deps.mail && { shownAt: deps.mail.shownAt },
  };
}

/** Tells somebody of alerts from now on. @returns the secret of a hook, which is told this once */
export async function addTarget(
  deps: Deps,
  slug: string,
  personId: number,
  target: AlertTarget,
): Promise<{ id: number; said: string; secret: string | null }> {
  const { id: accountId } = await requireAccount(deps, slug);
  if (target.way === 'mail' && deps.mail === null)
    throw new Refusal('No mail can be sent from here: set GATEPOST_MAIL_URL. Nothing was changed.');
  const secret = target.way === 'hook' ? randomBytes(32).toString('base64url') : null;
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const id = await insertTarget(trx, accountId, target, { secret, personId });
    const said = `Told of alerts: ${target.address}`;
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: said, after: target },
      undo: { do: 'set alert target', target: id, isRemoved: true },
    });
    return { id, said, secret };
  });
}

/** Changes what somebody is told of, and when. @throws Refusal when the target is gone */
export async function changeTarget(
  deps: Deps,
  slug: string,
  personId: number,
  id: number,
  target: AlertTarget,
  undoes?: number,
): Promise<{ said: string }> {
  const { id: accountId } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const was = (await listTargets(trx, accountId)).find((one) => one.id === id);
    if (was?.way !== target.way || !(await updateTarget(trx, accountId, id, target)))
      throw new Refusal('Nobody is told there any more. Nothing was changed.', 404);
    const { id: _, secret: __, by: ___, ...before } = was;
    const said = `Told otherwise of alerts: ${target.address}`;
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: said, before, after: target, undoes },
      undo: { do: 'change alert target', target: id, to: before },
    });
    return { said };
  });
}

/** Tells somebody no more, or again. @throws Refusal when that is so already */
export async function removeTarget(
  deps: Deps,
  slug: string,
  personId: number,
  { id, isRemoved }: { id: number; isRemoved: boolean },
  undoes?: number,
): Promise<{ said: string }> {
  const { id: accountId } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const address = await setRemoved(trx, accountId, id, isRemoved);
    if (address === null) throw new Refusal('That is so already.', 409);
    const said = `Told of alerts ${isRemoved ? 'no more' : 'again'}: ${address}`;
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: said, undoes },
      undo: { do: 'set alert target', target: id, isRemoved: !isRemoved },
    });
    return { said };
  });
}
