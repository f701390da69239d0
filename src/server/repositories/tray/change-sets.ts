import { clockNow, type Db } from '../../db/connection';

export type SetState =
  'draft' | 'sending' | 'handed over' | 'said to be done' | 'confirmed' | 'partly failed';
/** States of a set that is neither the draft nor closed. */
export const UNDERWAY = ['sending', 'handed over', 'said to be done'] as const satisfies SetState[];

export type ChangeSet = {
  id: number;
  state: SetState;
  sentAt: string | null;
  sentBy: string | null;
  /** the rule that sent it by itself */
  ruleId: number | null;
  sentDay: string | null;
  trouble: string | null;
  /** a person has stopped its sending */
  isStopped: boolean;
  /** when sending is to begin; null once it has begun, or where it began at once */
  sendAt: string | null;
  /** the platform's revision after its newest answer */
  platformRevision: number | null;
};

function toSet(row: Record<string, unknown>): ChangeSet {
  return {
    id: row.change_set_id as number,
    state: row.state as SetState,
    sentAt: (row.sent_at as Date | null)?.toISOString() ?? null,
    sentBy: row.rule_name === null ? (row.sent_by_name as string | null) : `the rule “${row.rule_name}”`,
    ruleId: row.rule_id as number | null,
    sentDay: row.sent_day as string | null,
    trouble: row.trouble as string | null,
    isStopped: row.is_stopped as boolean,
    sendAt: (row.send_at as Date | null)?.toISOString() ?? null,
    platformRevision: row.platform_revision as number | null,
  };
}

const sets = (db: Db, accountId: number) =>
  db('change_set')
    .leftJoin('person', 'person.person_id', 'change_set.sent_by')
    .where({ 'change_set.account_id': accountId })
    .select('change_set.*', 'person.name as sent_by_name')
    .select(
      db.raw(`(select v.name from rule r join rule_version v using (account_id, rule_id, version)
                where r.account_id = change_set.account_id and r.rule_id = change_set.rule_id) as rule_name`),
    );

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
  sent: { as: 'sending' | 'handed over'; by: number; day: string; at?: string; rule?: number },
): Promise<boolean> {
  const frozen = await db('change_set')
    .where({ account_id: accountId, change_set_id: setId, state: 'draft' })
    .update({
      ...{ state: sent.as, sent_at: clockNow(db), sent_by: sent.by, sent_day: sent.day },
      ...{ send_at: sent.at ?? null, rule_id: sent.rule ?? null },
    });
  return frozen > 0;
}

/** Makes a set that is on its way from the beginning. @returns its id */
export async function insertSending(
  db: Db,
  accountId: number,
  sent: { by: number; day: string },
): Promise<number> {
  const [row] = await db('change_set')
    .insert({
      ...{ account_id: accountId, state: 'sending', sent_at: clockNow(db) },
      ...{ sent_by: sent.by, sent_day: sent.day },
    })
    .returning<{ change_set_id: number }[]>('change_set_id');
  return row!.change_set_id;
}

/** Sending begins now, whatever time was set for it. @param day the platform's, from which it acts */
export async function beginSending(db: Db, accountId: number, setId: number, day: string): Promise<void> {
  await db('change_set')
    .where({ account_id: accountId, change_set_id: setId })
    .update({ send_at: null, sent_day: day });
}

/** Sets when sending is to begin. */
export async function setSendAt(db: Db, accountId: number, setId: number, at: Date): Promise<void> {
  await db('change_set').where({ account_id: accountId, change_set_id: setId }).update({ send_at: at });
}

/** Notes the platform's revision after an answer; a lower one changes nothing. */
export async function noteRevision(
  db: Db,
  accountId: number,
  setId: number,
  revision: number,
): Promise<void> {
  await db('change_set')
    .where({ account_id: accountId, change_set_id: setId })
    .update({ platform_revision: db.raw('greatest(platform_revision, ?)', [revision]) });
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

/** Opens a set again that was closed, or moves it, whatever state it is in. */
export async function setState(db: Db, accountId: number, setId: number, state: SetState): Promise<void> {
  await db('change_set').where({ account_id: accountId, change_set_id: setId }).update({ state });
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
