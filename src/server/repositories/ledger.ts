import type { Db } from '../db/connection';
import type { Before, ChangeState } from './change-sets';
import type { Change } from '@/core';

export type NewEntry = {
  actor: { person: number } | 'read-back';
  about: 'change' | 'keep' | 'load' | 'note' | 'mark' | 'view';
  what: string;
  why?: string | null;
  before?: unknown;
  after?: unknown;
  changeId?: number;
};

export async function appendLedger(db: Db, accountId: number, entry: NewEntry): Promise<void> {
  await db('ledger_entry').insert({
    account_id: accountId,
    actor: entry.actor === 'read-back' ? 'read-back' : 'person',
    person_id: entry.actor === 'read-back' ? null : entry.actor.person,
    about: entry.about,
    what: entry.what,
    why: entry.why ?? null,
    before: entry.before === undefined ? null : JSON.stringify(entry.before),
    after: entry.after === undefined ? null : JSON.stringify(entry.after),
    change_id: entry.changeId ?? null,
  });
}

export type LedgerEntry = {
  id: number;
  at: string;
  who: string;
  about: NewEntry['about'];
  what: string;
  why: string | null;
  /** the sent change that the entry tells of, if it does */
  change: {
    id: number;
    change: Change;
    state: ChangeState;
    sentDay: string;
    before: Before | null;
    /** a change in the tray or sent that undoes it */
    undoneBy: 'drafted' | 'sent' | null;
  } | null;
};

/** The newest entries first. `beforeId` goes on from where a page ended. */
export async function listLedger(
  db: Db,
  accountId: number,
  most: number,
  beforeId?: number,
): Promise<LedgerEntry[]> {
  const query = db('ledger_entry as e')
    .leftJoin('person as p', 'p.person_id', 'e.person_id')
    .leftJoin('change as c', function () {
      this.on('c.account_id', 'e.account_id').andOn('c.change_id', 'e.change_id');
    })
    .leftJoin('change_set as s', function () {
      this.on('s.account_id', 'c.account_id').andOn('s.change_set_id', 'c.change_set_id');
    })
    .where({ 'e.account_id': accountId })
    .orderBy('e.ledger_entry_id', 'desc')
    .limit(most)
    .select('e.*', 'p.name as person', 'c.body', 'c.state', 'c.before as change_before', 's.sent_day')
    .select(
      db.raw(`(select case when u.state = 'drafted' and us.state = 'draft' then 'drafted' else 'sent' end
                 from change u join change_set us using (account_id, change_set_id)
                where u.account_id = e.account_id and u.undoes = e.change_id and u.state not in ('refused')
                order by u.change_id desc limit 1) as undone_by`),
    );
  if (beforeId !== undefined) void query.where('e.ledger_entry_id', '<', beforeId);
  return (await query).map((row) => ({
    id: row.ledger_entry_id,
    at: row.at.toISOString(),
    who: row.person ?? row.actor,
    about: row.about,
    what: row.what,
    why: row.why,
    change: row.body && {
      id: row.change_id,
      change: row.body,
      state: row.state,
      sentDay: row.sent_day,
      before: row.change_before,
      undoneBy: row.undone_by,
    },
  }));
}
