import type { AlertKind, AlertLine } from '@/contracts/alerts';
import type { Db } from '../../db/connection';

/** Something that came up. */
export type NewAlert = {
  kind: AlertKind;
  /** of this one happening: it comes up once */
  key: string;
  says: string;
  /** path within the account */
  leadsTo: string;
};

/** Notes what came up. @returns those that are new */
export async function insertAlerts(
  db: Db,
  accountId: number,
  alerts: readonly NewAlert[],
): Promise<{ id: number; kind: AlertKind }[]> {
  if (alerts.length === 0) return [];
  const rows: { alert_id: number; kind: AlertKind }[] = await db('alert')
    .insert(
      alerts.map(({ kind, key, says, leadsTo }) => ({
        ...{ account_id: accountId, kind, key, says, leads_to: leadsTo },
      })),
    )
    .onConflict(['account_id', 'kind', 'key'])
    .ignore()
    .returning(['alert_id', 'kind']);
  return rows.map(({ alert_id, kind }) => ({ id: alert_id, kind }));
}

/** The newest alerts first. */
export async function listAlerts(db: Db, accountId: number, most: number): Promise<AlertLine[]> {
  const rows: { alert_id: number; kind: AlertKind; says: string; at: Date; leads_to: string }[] = await db(
    'alert',
  )
    .where({ account_id: accountId })
    .orderBy('alert_id', 'desc')
    .limit(most)
    .select('alert_id', 'kind', 'says', 'at', 'leads_to');
  return rows.map(({ alert_id, kind, says, at, leads_to }) => ({
    ...{ id: alert_id, kind, says, at: at.toISOString(), leadsTo: leads_to },
  }));
}
