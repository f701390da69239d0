import type { Db } from '../../db/connection';

export type SetAside = {
  key: string;
  raw: string;
  /** it comes back when it has so many clicks after the day */
  moreClicks: number;
  afterDay: string;
  by: string;
  at: string;
};

export async function listSetAside(db: Db, accountId: number): Promise<SetAside[]> {
  const rows = await db('set_aside')
    .join('person', 'person.person_id', 'set_aside.person_id')
    .where({ account_id: accountId })
    .orderBy('key')
    .select('key', 'raw', 'more_clicks', 'after_day', 'person.name as by', 'created_at');
  return rows.map((row) => ({
    key: row.key,
    raw: row.raw,
    moreClicks: row.more_clicks,
    afterDay: row.after_day,
    by: row.by,
    at: row.created_at.toISOString(),
  }));
}

/** Sets terms aside; one that is aside already is counted from the new day on. */
export async function putAside(
  db: Db,
  accountId: number,
  terms: readonly { key: string; raw: string }[],
  { moreClicks, afterDay, personId }: { moreClicks: number; afterDay: string; personId: number },
): Promise<void> {
  for (let at = 0; at < terms.length; at += 5_000) {
    const rows = terms.slice(at, at + 5_000).map(({ key, raw }) => ({
      ...{ account_id: accountId, key, raw, more_clicks: moreClicks, after_day: afterDay },
      person_id: personId,
    }));
    await db('set_aside').insert(rows).onConflict(['account_id', 'key']).merge();
  }
}

/** @returns keys that were set aside */
export async function takeFromAside(db: Db, accountId: number, keys: readonly string[]): Promise<string[]> {
  return db('set_aside')
    .where({ account_id: accountId })
    .whereIn('key', [...keys])
    .delete()
    .returning('key')
    .then((rows: { key: string }[]) => rows.map((row) => row.key));
}

/** Clicks that the terms set aside had after their day, up to the newest; those without any are left out. */
export async function clicksSinceAside(db: Db, accountId: number): Promise<Map<string, number>> {
  const { rows } = await db.raw<{ rows: { key: string; clicks: number }[] }>(
    `select a.key, sum(d.clicks)::bigint as clicks
       from set_aside a
       join term t using (account_id, key)
       join term_day d on d.account_id = a.account_id and d.term_id = t.term_id and d.day > a.after_day
      where a.account_id = :account
        and d.day > (select min(after_day) from set_aside where account_id = :account)
      group by a.key having sum(d.clicks) > 0`,
    { account: accountId },
  );
  return new Map(rows.map((row) => [row.key, row.clicks]));
}
