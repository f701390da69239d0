import type { AlertKind, DeliveryLine } from '@/contracts/alerts';
import type { Db } from '../../db/connection';

/**
 * Adds alerts to what goes to a target at a time: one delivery that was not tried yet and is due then takes all of them, unless it is
 * on its way just now.
 * @returns the delivery
 */
export async function addToDelivery(
  db: Db,
  accountId: number,
  { targetId, dueAt, alertIds }: { targetId: number; dueAt: Date; alertIds: readonly number[] },
): Promise<number> {
  const there = await db('delivery')
    .where({ account_id: accountId, alert_target_id: targetId, state: 'waits', tries: 0, due_at: dueAt })
    .forUpdate()
    .skipLocked()
    .first('delivery_id');
  const id =
    (there?.delivery_id as number | undefined) ?? (await insertDelivery(db, accountId, targetId, dueAt));
  await db('delivery_alert').insert(
    alertIds.map((alertId) => ({ account_id: accountId, delivery_id: id, alert_id: alertId })),
  );
  return id;
}

async function insertDelivery(db: Db, accountId: number, targetId: number, dueAt: Date): Promise<number> {
  const [row] = await db('delivery')
    .insert({ account_id: accountId, alert_target_id: targetId, due_at: dueAt })
    .returning<{ delivery_id: number }[]>('delivery_id');
  return row!.delivery_id;
}

export type DueDelivery = {
  targetId: number;
  tries: number;
  alerts: { kind: AlertKind; says: string; at: string; leadsTo: string }[];
};

/** A delivery that waits, held until the transaction ends; null where it does not wait any more, or another process has it. */
export async function holdDelivery(db: Db, accountId: number, id: number): Promise<DueDelivery | null> {
  const row = await db('delivery')
    .where({ account_id: accountId, delivery_id: id, state: 'waits' })
    .forUpdate()
    .skipLocked()
    .first('alert_target_id', 'tries');
  if (!row) return null;
  const alerts = await db('delivery_alert')
    .join('alert', function () {
      this.on('alert.account_id', 'delivery_alert.account_id').andOn(
        'alert.alert_id',
        'delivery_alert.alert_id',
      );
    })
    .where({ 'delivery_alert.account_id': accountId, delivery_id: id })
    .orderBy('alert.alert_id')
    .select('kind', 'says', 'at', 'leads_to');
  return {
    ...{ targetId: row.alert_target_id, tries: row.tries },
    alerts: alerts.map(({ kind, says, at, leads_to }) => ({
      kind,
      says,
      at: at.toISOString(),
      leadsTo: leads_to,
    })),
  };
}

/** Notes what became of a try. */
export async function noteTry(
  db: Db,
  accountId: number,
  id: number,
  { state, dueAt, trouble }: { state: DeliveryLine['state']; dueAt: Date; trouble: string | null },
): Promise<void> {
  await db('delivery')
    .where({ account_id: accountId, delivery_id: id })
    .update({ state, due_at: dueAt, trouble })
    .increment('tries', 1);
}

/** The newest deliveries first. */
export async function listDeliveries(db: Db, accountId: number, most: number): Promise<DeliveryLine[]> {
  const { rows } = await db.raw<{
    rows: {
      delivery_id: number;
      alert_target_id: number;
      state: DeliveryLine['state'];
      due_at: Date;
      tries: number;
      trouble: string | null;
      says: string[];
    }[];
  }>(
    `select d.delivery_id, d.alert_target_id, d.state, d.due_at, d.tries, d.trouble, array_agg(a.says order by a.alert_id) as says
       from (select * from delivery where account_id = :accountId order by delivery_id desc limit :most) d
       join delivery_alert using (account_id, delivery_id)
       join alert a using (account_id, alert_id)
      group by d.delivery_id, d.alert_target_id, d.state, d.due_at, d.tries, d.trouble
      order by d.delivery_id desc`,
    { accountId, most },
  );
  return rows.map((row) => ({
    ...{ id: row.delivery_id, targetId: row.alert_target_id, state: row.state, at: row.due_at.toISOString() },
    ...{ tries: row.tries, trouble: row.trouble, alerts: row.says },
  }));
}
