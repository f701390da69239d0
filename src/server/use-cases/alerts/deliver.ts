import { counted, secondsUntilNextTry } from '@/core';
import type { HookBody } from '@/contracts/alerts';
import { OutsideTrouble } from '../../outside';
import { requireAccountById, type Account } from '../../repositories/account/accounts';
import { holdDelivery, noteTry, type DueDelivery } from '../../repositories/alerts/deliveries';
import { listTargets, type StoredTarget } from '../../repositories/alerts/targets';
import type { Deps } from '../deps';
import { tellAt } from './raise-alerts';

/**
 * Tries a delivery that is due: by one process at a time, and again after ever longer waits where it fails. A target that is off or
 * gone is told nothing. What a process that dies has just sent is sent once more, under the same number.
 */
export async function deliver(deps: Deps, accountId: number, deliveryId: number): Promise<void> {
  const account = await requireAccountById(deps.db, accountId);
  await deps.db.transaction(async (trx) => {
    const due = await holdDelivery(trx, accountId, deliveryId);
    if (!due) return;
    const now = deps.clock.now();
    const target = (await listTargets(trx, accountId)).find(({ id }) => id === due.targetId);
    if (!target?.isOn) {
      const trouble = target ? 'it is switched off' : 'it was removed';
      return noteTry(trx, accountId, deliveryId, { state: 'given up', dueAt: now, trouble });
    }
    try {
      await tell(deps, account, { target, due, deliveryId });
      await noteTry(trx, accountId, deliveryId, { state: 'delivered', dueAt: now, trouble: null });
    } catch (error) {
      if (!(error instanceof OutsideTrouble)) throw error;
      const wait = error.kind === 'refused' ? null : secondsUntilNextTry(due.tries + 1);
      const next = new Date(now.getTime() + 1_000 * (wait ?? 0));
      const dueAt = wait === null ? next : tellAt({ ...target, digestAt: null }, next); // quiet hours hold for it, too
      const state = wait === null ? 'given up' : 'waits';
      await noteTry(trx, accountId, deliveryId, { state, dueAt, trouble: error.message });
      if (wait !== null) await deps.enqueue(trx, { name: 'deliver', accountId, deliveryId }, dueAt);
    }
  });
}

type Telling = { target: StoredTarget; due: DueDelivery; deliveryId: number };

async function tell(deps: Deps, account: Account, { target, due, deliveryId }: Telling): Promise<void> {
  const delivery = `${account.id}-${deliveryId}`;
  const addressOf = (path: string) => `${deps.address}/${account.slug}${path}`;
  if (target.way === 'hook') {
    const body: HookBody = {
      ...{ delivery, account: account.name },
      alerts: due.alerts.map(({ kind, says, at, leadsTo }) => ({
        kind,
        says,
        at,
        address: addressOf(leadsTo),
      })),
    };
    return deps.hooks.call({ address: target.address, secret: target.secret! }, body, deps.clock.now());
  }
  if (deps.mail === null) throw new OutsideTrouble('refused', 'No mail can be sent from here.');
  const [first] = due.alerts;
  await deps.mail.send({
    ...{ to: target.address, id: delivery },
    subject:
      due.alerts.length === 1
        ? `${account.name}: ${first!.says}`
        : `${account.name}: ${counted(due.alerts.length, 'alert')}`,
    text: due.alerts.map(({ says, leadsTo }) => `${says}\n${addressOf(leadsTo)}`).join('\n\n'),
  });
}
