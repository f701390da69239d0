import { randomUUID } from 'node:crypto';
import { changeKey, type Change } from '@/core';
import type { MadeFor } from '@/contracts/knots';
import type { Db } from '../../db/connection';
import type { Before } from './before';
import { openDraft, UNDERWAY, type SetState } from './change-sets';
import { COMMENTS, type Comment } from './comments';

/** said: carried out, as a person says, in an account without a platform; no structure file has shown it yet. */
export type ChangeState = 'drafted' | 'applied' | 'refused' | 'said' | 'there' | 'missing' | 'different';

export type StoredChange = {
  id: number;
  setId: number;
  key: string;
  change: Change;
  why: string | null;
  forcedBecause: string | null;
  state: ChangeState;
  answerCode: string | null;
  answerText: string | null;
  platformId: string | null;
  before: Before | null;
  failedBefore: string | null;
  undoes: number | null;
  /** what it is to untangle */
  knot: MadeFor | null;
  /** how often the platform put it off */
  attempts: number;
  /** the first day on which it does not act any more */
  endsOn: string | null;
  /** what people said of it, oldest first */
  comments: Comment[];
  draftedBy: string;
  draftedById: number;
  /** the same for all that one action put in */
  draftedAt: string;
};

export function toChange(row: Record<string, unknown>): StoredChange {
  return {
    id: row.change_id as number,
    setId: row.change_set_id as number,
    key: row.key as string,
    change: row.body as Change,
    why: row.why as string | null,
    forcedBecause: row.forced_because as string | null,
    state: row.state as ChangeState,
    answerCode: row.answer_code as string | null,
    answerText: row.answer_text as string | null,
    platformId: row.platform_id as string | null,
    before: row.before as Before | null,
    failedBefore: row.failed_before as string | null,
    undoes: row.undoes as number | null,
    knot: row.knot as MadeFor | null,
    attempts: row.attempts as number,
    endsOn: row.ends_on as string | null,
    comments: (row.comments as Comment[] | null) ?? [],
    draftedBy: row.drafted_by_name as string,
    draftedById: row.drafted_by as number,
    draftedAt: (row.drafted_at as Date).toISOString(),
  };
}

export const changes = (db: Db, accountId: number) =>
  db('change')
    .join('person', 'person.person_id', 'change.drafted_by')
    .where({ 'change.account_id': accountId })
    .orderBy('change.change_id')
    .select('change.*', 'person.name as drafted_by_name', db.raw(`(${COMMENTS}) as comments`));

export async function loadDraft(db: Db, accountId: number): Promise<StoredChange[]> {
  const draft = db('change_set').where({ account_id: accountId, state: 'draft' }).select('change_set_id');
  return (await changes(db, accountId).whereIn('change_set_id', draft)).map(toChange);
}

/** Which changes the draft holds, in order, as one text: a draft that only grew begins with the text that it had. */
export async function idsInDraft(db: Db, accountId: number): Promise<string> {
  const { rows } = await db.raw<{ rows: { ids: string | null }[] }>(
    `select string_agg(change_id || ',', '' order by change_id) as ids
       from change join change_set using (account_id, change_set_id)
      where account_id = :account and change_set.state = 'draft'`,
    { account: accountId },
  );
  return rows[0]!.ids ?? '';
}

/** Changes of the draft after one of them. */
export async function loadDraftAfter(db: Db, accountId: number, changeId: number): Promise<StoredChange[]> {
  const draft = db('change_set').where({ account_id: accountId, state: 'draft' }).select('change_set_id');
  const after = changes(db, accountId).whereIn('change_set_id', draft).where('change_id', '>', changeId);
  return (await after).map(toChange);
}

export async function loadChangesOf(db: Db, accountId: number, setId: number): Promise<StoredChange[]> {
  return (await changes(db, accountId).where({ change_set_id: setId })).map(toChange);
}

/** Changes of a set that have no answer yet: the first of them, in the order in which they are sent. */
export async function loadUnanswered(
  db: Db,
  accountId: number,
  setId: number,
  most: number,
): Promise<StoredChange[]> {
  const unanswered = changes(db, accountId).where({ change_set_id: setId, state: 'drafted' });
  return (await unanswered.limit(most)).map(toChange);
}

export async function findChange(
  db: Db,
  accountId: number,
  changeId: number,
): Promise<StoredChange | undefined> {
  const row = await changes(db, accountId).where({ change_id: changeId }).first();
  return row && toChange(row);
}

/** Changes of all sets that are not closed yet, in the order in which they were drafted, with the state of their set. */
export async function loadUnderway(
  db: Db,
  accountId: number,
): Promise<(StoredChange & { setState: SetState })[]> {
  const rows = await changes(db, accountId)
    .join('change_set', function () {
      this.on('change_set.account_id', 'change.account_id').andOn(
        'change_set.change_set_id',
        'change.change_set_id',
      );
    })
    .whereIn('change_set.state', UNDERWAY)
    .select('change_set.state as set_state');
  return rows.map((row) => ({ ...toChange(row), setState: row.set_state as SetState }));
}

export type NewChange = {
  key?: string;
  change: Change;
  why?: string | null;
  forcedBecause?: string | null;
  failedBefore?: string | null;
  undoes?: number | null;
  fromTerm?: string | null;
  endsOn?: string | null;
  knot?: MadeFor | null;
  draftedBy: number;
};

/** Rows of one statement; each takes a dozen of the 65,535 values that it may have. */
const ROWS_AT_ONCE = 1_000;

/** Adds changes to a set. @returns their ids, in the order given */
export async function insertChanges(
  db: Db,
  accountId: number,
  setId: number,
  drafted: readonly NewChange[],
): Promise<number[]> {
  const rows = drafted.map((one) => ({
    account_id: accountId,
    change_set_id: setId,
    key: one.key ?? randomUUID(),
    natural_key: changeKey(one.change),
    kind: one.change.kind,
    body: JSON.stringify(one.change),
    why: one.why ?? null,
    forced_because: one.forcedBecause ?? null,
    failed_before: one.failedBefore ?? null,
    undoes: one.undoes ?? null,
    from_term: one.fromTerm ?? null,
    ends_on: one.endsOn ?? null,
    knot: one.knot ? JSON.stringify(one.knot) : null,
    drafted_by: one.draftedBy,
    state: 'drafted',
  }));
  const idOf = new Map<string, number>();
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) {
    const written: { key: string; change_id: number }[] = await db('change')
      .insert(rows.slice(at, at + ROWS_AT_ONCE))
      .returning(['key', 'change_id']);
    for (const { key, change_id } of written) idOf.set(key, change_id);
  }
  return rows.map(({ key }) => idOf.get(key)!);
}

/** Takes changes out of the draft; what was sent stays. @returns how many were taken out */
export async function deleteDrafted(
  db: Db,
  accountId: number,
  changeIds: readonly number[],
): Promise<number> {
  if (changeIds.length === 0) return 0;
  const draft = db('change_set').where({ account_id: accountId, state: 'draft' }).select('change_set_id');
  return db('change')
    .where({ account_id: accountId })
    .whereIn('change_id', changeIds)
    .whereIn('change_set_id', draft)
    .delete();
}

/** Sets the state of all changes of a set that are in another. */
export async function moveChanges(
  db: Db,
  accountId: number,
  setId: number,
  was: ChangeState,
  is: ChangeState,
): Promise<void> {
  await db('change').where({ account_id: accountId, change_set_id: setId, state: was }).update({ state: is });
}

/**
 * Moves changes that were sent or handed over back into the draft, under the keys they have: should one have been
 * carried out nevertheless, sending it again does nothing twice. A set that is left empty goes.
 */
export async function moveToDraft(
  db: Db,
  accountId: number,
  setId: number,
  changeIds: readonly number[],
): Promise<void> {
  const draftId = await openDraft(db, accountId);
  await db('change')
    .where({ account_id: accountId, change_set_id: setId })
    .whereIn('change_id', [...changeIds])
    .update({ change_set_id: draftId, state: 'drafted', before: null });
  await db('change_set')
    .where({ account_id: accountId, change_set_id: setId })
    .whereNotExists(db('change').where({ account_id: accountId, change_set_id: setId }))
    .delete();
}

/** Moves changes of one open set to another; `ids` are those that stay. */
export async function moveRest(
  db: Db,
  accountId: number,
  sets: { from: number; to: number },
  ids: readonly number[],
): Promise<void> {
  await db('change')
    .where({ account_id: accountId, change_set_id: sets.from })
    .whereNotIn('change_id', [...ids])
    .update({ change_set_id: sets.to });
}

/** Takes changes of a set away that were sent or handed over. */
export async function deleteFromSet(
  db: Db,
  accountId: number,
  setId: number,
  changeIds: readonly number[],
): Promise<void> {
  await db('change')
    .where({ account_id: accountId, change_set_id: setId })
    .whereIn('change_id', [...changeIds])
    .delete();
}

/** What becomes of a change of a set; what is left out stays. */
export type ChangeUpdate = { id: number } & Partial<{
  state: ChangeState;
  answerCode: string;
  answerText: string;
  platformId: string | null;
  before: Before;
  attempts: number;
}>;

/**
 * Updates changes of a set, all with one statement. A change that has left the set meanwhile stays as it is: an answer may
 * come for one that was taken back.
 */
export async function updateChanges(
  db: Db,
  accountId: number,
  setId: number,
  updates: readonly ChangeUpdate[],
): Promise<void> {
  if (updates.length === 0) return;
  const rows = updates.map(({ id, state, answerCode, answerText, platformId, before, attempts }) => ({
    ...{ change_id: id, state, answer_code: answerCode, answer_text: answerText },
    ...{ platform_id: platformId, before, attempts },
  }));
  await db.raw(
    `update change c
        set state = coalesce(u.state, c.state),
            answer_code = coalesce(u.answer_code, c.answer_code),
            answer_text = coalesce(u.answer_text, c.answer_text),
            platform_id = coalesce(u.platform_id, c.platform_id),
            before = coalesce(u.before, c.before),
            attempts = coalesce(u.attempts, c.attempts)
       from jsonb_to_recordset(cast(:rows as jsonb)) as u (
              change_id integer, state text, answer_code text, answer_text text, platform_id text, before jsonb,
              attempts smallint)
      where c.account_id = :account and c.change_set_id = :set and c.change_id = u.change_id`,
    { account: accountId, set: setId, rows: JSON.stringify(rows) },
  );
}
