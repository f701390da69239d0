import type { Db } from '../../db/connection';

export type SetState =
  'draft' | 'sending' | 'handed over' | 'said to be done' | 'confirmed' | 'partly failed';
/** States of a set that is neither the draft nor closed. */
export const UNDERWAY = ['sending', 'handed over', 'said to be done'] as const satisfies SetState[];

export type ChangeSet = {
  id: number;
  state: SetState;
  sentAt: string | null;
  sentBy: string | null;
  sentDay: string | null;
  trouble: string | null;
  /** a person has stopped its sending */
  isStopped: boolean;
};

function toSet(row: Record<string, unknown>): ChangeSet {
  return {
    id: row.change_set_id as number,
    state: row.state as SetState,
    sentAt: (row.sent_at as Date | null)?.toISOString() ?? null,
    sentBy: row.sent_by_name as string | null,
    sentDay: row.sent_day as string | null,
    trouble: row.trouble as string | null,
    isStopped: row.is_stopped as boolean,
  };
}

const sets = (db: Db, accountId: number) =>
  db('change_set')
    .leftJoin('person', 'person.person_id', 'change_set.sent_by')
    .where({ 'change_set.account_id': accountId })
    .select('change_set.*', 'person.name as sent_by_name');

/** The account's open draft; made when there is none. */
export async function openDraft(db: Db, accountId: number): Promise<number> {
  const find = () => db('change_set').where({ account_id: accountId, state: 'draft' }).first('change_set_id');
  const there = await find();
  if (there) return there.change_set_id;
  await db.raw(
    `insert into change_set (account_id, state) values (?, 'draft')
     on conflict (account_id) where state = 'draft' do nothing`,
    [accountId],
  );
  return (await find()).change_set_id;
}

export async function findSet(db: Db, accountId: number, setId: number): Promise<ChangeSet | undefined> {
  const row = await sets(db, accountId).where({ change_set_id: setId }).first();
  return row && toSet(row);
}

/** Sets that were sent or handed over and are not closed yet, oldest first. */
export async function listUnderway(db: Db, accountId: number): Promise<ChangeSet[]> {
  return (await sets(db, accountId).whereIn('state', UNDERWAY).orderBy('change_set_id')).map(toSet);
}

/** Sets that are on their way to the platform, oldest first. */
export async function listSending(db: Db, accountId: number): Promise<ChangeSet[]> {
  return (await sets(db, accountId).where({ state: 'sending' }).orderBy('change_set_id')).map(toSet);
}

/** The set that was closed last, if any was. */
export async function findLastClosed(db: Db, accountId: number): Promise<ChangeSet | undefined> {
  const closed = sets(db, accountId).whereIn('state', ['confirmed', 'partly failed']);
  const row = await closed.orderBy('change_set_id', 'desc').first();
  return row && toSet(row);
}

/** Freezes the draft. @returns whether there was one to freeze */
export async function freezeDraft(
  db: Db,
  accountId: number,
  setId: number,
  sent: { as: 'sending' | 'handed over'; by: number; day: string },
): Promise<boolean> {
  const frozen = await db('change_set')
    .where({ account_id: accountId, change_set_id: setId, state: 'draft' })
    .update({ state: sent.as, sent_at: db.fn.now(), sent_by: sent.by, sent_day: sent.day });
  return frozen > 0;
}

export async function setTrouble(
  db: Db,
  accountId: number,
  setId: number,
  trouble: string | null,
): Promise<void> {
  await db('change_set').where({ account_id: accountId, change_set_id: setId }).update({ trouble });
}

/** Marks a set that is being sent as stopped. @returns whether it was being sent */
export async function askToStop(db: Db, accountId: number, setId: number): Promise<boolean> {
  const where = { account_id: accountId, change_set_id: setId, state: 'sending' };
  return (await db('change_set').where(where).update({ is_stopped: true })) > 0;
}

/** Moves a set from one state to the next. @returns whether it was in the state before */
export async function moveSet(
  db: Db,
  accountId: number,
  setId: number,
  was: SetState,
  is: SetState,
): Promise<boolean> {
  const where = { account_id: accountId, change_set_id: setId, state: was };
  return (await db('change_set').where(where).update({ state: is })) > 0;
}

export async function closeSet(
  db: Db,
  accountId: number,
  setId: number,
  state: 'confirmed' | 'partly failed',
) {
  await db('change_set')
    .where({ account_id: accountId, change_set_id: setId })
    .update({ state, trouble: null });
}
