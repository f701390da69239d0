import type { AccountLook, SendingLimits } from '@/contracts/second-look';
import { clockNow, type Db } from '../../db/connection';

type Who = { id: number; name: string };
/** A tray that is up for a second look. */
export type StoredLook = {
  id: number;
  putUpBy: Who;
  putUpAt: string;
  note: string;
  yes: { by: Who; at: string } | null;
};

/** The look for which a tray is up; null where it is up for none. */
export async function findLook(db: Db, accountId: number, setId: number): Promise<StoredLook | null> {
  const row = await db('second_look as look')
    .join('person as putter', 'putter.person_id', 'look.put_up_by')
    .leftJoin('person as yes', 'yes.person_id', 'look.yes_by')
    .where({ account_id: accountId, change_set_id: setId, ended_at: null })
    .first('look.*', 'putter.name as putter_name', 'yes.name as yes_name');
  if (!row) return null;
  return {
    id: row.second_look_id,
    putUpBy: { id: row.put_up_by, name: row.putter_name },
    putUpAt: row.put_up_at.toISOString(),
    note: row.note,
    yes: row.yes_by && { by: { id: row.yes_by, name: row.yes_name }, at: row.yes_at.toISOString() },
  };
}

export async function insertLook(
  db: Db,
  accountId: number,
  look: { setId: number; putUpBy: number; note: string },
): Promise<void> {
  await db('second_look').insert({
    ...{ account_id: accountId, change_set_id: look.setId, put_up_by: look.putUpBy },
    ...{ put_up_at: clockNow(db), note: look.note },
  });
}

/** The tray is up for no look any more. */
export async function endLook(db: Db, accountId: number, setId: number): Promise<void> {
  await db('second_look')
    .where({ account_id: accountId, change_set_id: setId, ended_at: null })
    .update({ ended_at: clockNow(db) });
}

/** A tray of which nothing is left is up for no look any more. */
export async function endLookOfEmpty(db: Db, accountId: number): Promise<void> {
  await db('second_look as look')
    .where({ account_id: accountId, ended_at: null })
    .whereNotExists(
      db('change')
        .whereRaw('change.account_id = look.account_id and change.change_set_id = look.change_set_id')
        .select(db.raw('1')),
    )
    .update({ ended_at: clockNow(db) });
}

/** What stays in the tray while the rest is sent stays up, with the yes that it has. */
export async function moveLook(
  db: Db,
  accountId: number,
  { from, to }: { from: number; to: number },
): Promise<void> {
  await db('second_look')
    .where({ account_id: accountId, change_set_id: from, ended_at: null })
    .update({ change_set_id: to });
}

/** A change as it is now: what somebody said yes to is not what was changed since. */
const DIGEST = `md5(row(change.body, change.ends_on, change.forced_because)::text)`;

/** Notes a yes to some changes of a tray, in the place of the one before; null takes it back. */
export async function setYes(
  db: Db,
  accountId: number,
  lookId: number,
  yes: { by: number; changes: readonly number[] } | null,
): Promise<void> {
  const look = { account_id: accountId, second_look_id: lookId };
  await db('second_look')
    .where(look)
    .update({ yes_by: yes?.by ?? null, yes_at: yes ? clockNow(db) : null });
  await db('second_look_change').where(look).delete();
  if (yes)
    await db.raw(
      `insert into second_look_change (account_id, second_look_id, change_id, digest)
       select look.account_id, look.second_look_id, change.change_id, ${DIGEST}
         from second_look look join change using (account_id, change_set_id)
        where look.account_id = :account and look.second_look_id = :look
          and change.change_id = any(cast(:changes as integer[]))`,
      { account: accountId, look: lookId, changes: [...yes.changes] },
    );
}

/** The changes to which a look's yes was said, and which are as they were then. */
export async function listSeen(db: Db, accountId: number, lookId: number): Promise<Set<number>> {
  const rows: { change_id: number }[] = await db('second_look_change as seen')
    .join('change', (on) =>
      on.on('change.account_id', 'seen.account_id').andOn('change.change_id', 'seen.change_id'),
    )
    .where({ 'seen.account_id': accountId, 'seen.second_look_id': lookId })
    .whereRaw(`seen.digest = ${DIGEST}`)
    .select('seen.change_id');
  return new Set(rows.map((row) => row.change_id));
}

/** How many changes each person has sent, or handed over, since a time. */
export async function countSentSince(db: Db, accountId: number, since: Date): Promise<Map<number, number>> {
  const rows: { sent_by: number; count: string }[] = await db('change_set')
    .join('change', (on) =>
      on
        .on('change.account_id', 'change_set.account_id')
        .andOn('change.change_set_id', 'change_set.change_set_id'),
    )
    .where({ 'change_set.account_id': accountId })
    .where('sent_at', '>', since)
    .whereNotNull('sent_by')
    .groupBy('sent_by')
    .select('sent_by')
    .count({ count: '*' });
  return new Map(rows.map((row) => [row.sent_by, Number(row.count)]));
}

/** What the account asks for, and what each person may send without; only people with a bound are named. */
export async function loadLookRules(
  db: Db,
  accountId: number,
): Promise<{ account: AccountLook; people: Map<number, SendingLimits> }> {
  const { second_look: account } = await db('account').where({ account_id: accountId }).first('second_look');
  const rows: { person_id: number; most_at_once: number | null; most_in_30_days: number | null }[] = await db(
    'member',
  )
    .where({ account_id: accountId })
    .whereRaw('(most_at_once is not null or most_in_30_days is not null)')
    .orderBy('person_id')
    .select('person_id', 'most_at_once', 'most_in_30_days');
  const people = rows.map(
    (row) => [row.person_id, { atOnce: row.most_at_once, in30Days: row.most_in_30_days }] as const,
  );
  return { account, people: new Map(people) };
}

/** Sets them all, in the place of those before. */
export async function replaceLookRules(
  db: Db,
  accountId: number,
  { account, people }: { account: AccountLook; people: ReadonlyMap<number, SendingLimits> },
): Promise<void> {
  await db('account')
    .where({ account_id: accountId })
    .update({ second_look: JSON.stringify(account) });
  await db('member').where({ account_id: accountId }).update({ most_at_once: null, most_in_30_days: null });
  for (const [person, { atOnce, in30Days }] of people)
    await db('member')
      .where({ account_id: accountId, person_id: person })
      .update({ most_at_once: atOnce, most_in_30_days: in30Days });
}
