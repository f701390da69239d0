import type { AlertTarget } from '@/contracts/alerts';
import type { Db } from '../../db/connection';

export type StoredTarget = AlertTarget & { id: number; secret: string | null; by: string };

type Row = {
  alert_target_id: number;
  way: AlertTarget['way'];
  address: string;
  secret: string | null;
  kinds: AlertTarget['kinds'];
  quiet_from: number | null;
  quiet_to: number | null;
  digest_at: number | null;
  time_zone: string;
  is_on: boolean;
  by: string;
};

/** Who is told of alerts, oldest first, without those that were removed. */
export async function listTargets(db: Db, accountId: number): Promise<StoredTarget[]> {
  const rows: Row[] = await db('alert_target')
    .join('person', 'person.person_id', 'alert_target.person_id')
    .where({ account_id: accountId, is_removed: false })
    .orderBy('alert_target_id')
    .select('alert_target.*', 'person.name as by');
  return rows.map((row) => ({
    ...{ id: row.alert_target_id, way: row.way, address: row.address, secret: row.secret, kinds: row.kinds },
    quiet: row.quiet_from === null ? null : { from: row.quiet_from, to: row.quiet_to! },
    ...{ digestAt: row.digest_at, timeZone: row.time_zone, isOn: row.is_on, by: row.by },
  }));
}

const columnsOf = ({ way, address, kinds, quiet, digestAt, timeZone, isOn }: AlertTarget) => ({
  ...{ way, address, kinds, quiet_from: quiet?.from ?? null, quiet_to: quiet?.to ?? null },
  ...{ digest_at: digestAt, time_zone: timeZone, is_on: isOn },
});

export async function insertTarget(
  db: Db,
  accountId: number,
  target: AlertTarget,
  { secret, personId }: { secret: string | null; personId: number },
): Promise<number> {
  const [row] = await db('alert_target')
    .insert({ ...columnsOf(target), account_id: accountId, secret, person_id: personId })
    .returning<{ alert_target_id: number }[]>('alert_target_id');
  return row!.alert_target_id;
}

/** Changes a target, which keeps its way and its secret. @returns whether it was there */
export async function updateTarget(
  db: Db,
  accountId: number,
  id: number,
  { way: _, ...target }: AlertTarget,
): Promise<boolean> {
  const { way: __, ...columns } = columnsOf({ ...target, way: 'mail' });
  const changed = await db('alert_target')
    .where({ account_id: accountId, alert_target_id: id, is_removed: false })
    .update(columns);
  return changed > 0;
}

/** Removes a target, or brings it back: what was sent to it stays known. @returns its address; null where that is so already */
export async function setRemoved(
  db: Db,
  accountId: number,
  id: number,
  isRemoved: boolean,
): Promise<string | null> {
  const [row] = await db('alert_target')
    .where({ account_id: accountId, alert_target_id: id, is_removed: !isRemoved })
    .update({ is_removed: isRemoved })
    .returning<{ address: string }[]>('address');
  return row?.address ?? null;
}
