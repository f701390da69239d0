import { minutesUntilTold } from '@/core';
import type { AlertKind } from '@/contracts/alerts';
import { listAccounts, lockAccount, requireAccountById } from '../../repositories/account/accounts';
import { insertAlerts } from '../../repositories/alerts/alerts';
import { addToDelivery } from '../../repositories/alerts/deliveries';
import { listTargets, type StoredTarget } from '../../repositories/alerts/targets';
import type { Deps } from '../deps';
import { openWorkbench } from '../open-workbench';
import { whatCameUp } from './what-came-up';

/**
 * Looks for what came up in an account since somebody was told last, and puts it on its way to whoever is to be told. Each happening
 * comes up once. May be called at any time, by several processes at once.
 * @returns how many alerts are new
 */
export async function raiseAlerts(deps: Deps, accountId: number): Promise<number> {
  const account = await requireAccountById(deps.db, accountId);
  const came = await whatCameUp(deps, await openWorkbench(deps, account));
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const fresh = await insertAlerts(trx, accountId, came);
    if (fresh.length === 0) return 0;
    for (const target of await listTargets(trx, accountId)) {
      const alertIds = fresh.filter(({ kind }) => isToldOf(target, kind)).map(({ id }) => id);
      if (alertIds.length === 0) continue;
      const dueAt = tellAt(target, deps.clock.now());
      const deliveryId = await addToDelivery(trx, accountId, { targetId: target.id, dueAt, alertIds });
      await deps.enqueue(trx, { name: 'deliver', accountId, deliveryId }, dueAt);
    }
    return fresh.length;
  });
}

/** Looks in every account, once a day: what is forgotten comes up by itself. */
export async function raiseDaily(deps: Deps): Promise<void> {
  for (const { id: accountId } of await listAccounts(deps.db))
    await deps.enqueue(deps.db, { name: 'raise-alerts', accountId });
}

const isToldOf = ({ isOn, kinds }: StoredTarget, kind: AlertKind) => isOn && kinds.includes(kind);

const MINUTE_MS = 60_000;

/** When a target is told of what comes up now: at the full minute, so that what comes up together goes together. */
export function tellAt(target: Pick<StoredTarget, 'quiet' | 'digestAt' | 'timeZone'>, now: Date): Date {
  const minute = Math.floor(now.getTime() / MINUTE_MS);
  return new Date((minute + minutesUntilTold(minuteOfDay(now, target.timeZone), target)) * MINUTE_MS);
}

function minuteOfDay(now: Date, timeZone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
  }).formatToParts(now);
  const of = (type: 'hour' | 'minute') => Number(parts.find((part) => part.type === type)!.value);
  return 60 * of('hour') + of('minute');
}
