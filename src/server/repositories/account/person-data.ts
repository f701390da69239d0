import type { Db } from '../../db/connection';

/** Everything that is stored of a person, by what it is; times are ISO texts. */
export type PersonData = Record<string, Record<string, unknown>[]>;

/** What is selected for a person, by the name under which it is given out. */
const PARTS: readonly [string, string][] = [
  ['person', 'select person_id as number, name from person where person_id = :person'],
  [
    'sign in',
    'select email, two_factor_enabled as "second factor", created_at as since from sign_in where person_id = :person',
  ],
  [
    'sessions',
    `select user_agent as browser, session.created_at as since, session.updated_at as "last seen"
       from sign_in_session session join sign_in on sign_in.id = session.user_id where person_id = :person`,
  ],
  [
    'sign-ins',
    'select at, what, email from sign_in_event where person_id = :person order by sign_in_event_id',
  ],
  [
    'roles',
    `select account.name as account, role, most_at_once as "changes at once", most_in_30_days as "changes in 30 days"
       from member join account using (account_id) where person_id = :person order by account_id`,
  ],
  [
    'ledger',
    `select account.name as account, at, what, why
       from ledger_entry join account using (account_id) where person_id = :person order by account_id, ledger_entry_id`,
  ],
  [
    'notes',
    `select account.name as account, note.created_at as at, about, body as text
       from note join account using (account_id) where person_id = :person order by account_id, note_id`,
  ],
  [
    'comments',
    `select account.name as account, at, body as text
       from change_comment join account using (account_id) where person_id = :person order by account_id, change_comment_id`,
  ],
  [
    'second looks',
    `select account.name as account, put_up_at as at, note as text
       from second_look join account using (account_id) where put_up_by = :person order by account_id, second_look_id`,
  ],
  [
    'told to others',
    `select account.name as account, at, label as about, body as text
       from mention join account using (account_id) where by_person = :person order by account_id, mention_id`,
  ],
  [
    'rules',
    `select account.name as account, at, rule_version.name as rule, version, why
       from rule_version join account using (account_id) where person_id = :person order by account_id, rule_id, version`,
  ],
  [
    'rules that act for this person',
    `select account.name as account, on_since as since, v.name as rule
       from rule join account using (account_id) join rule_version v using (account_id, rule_id, version)
      where on_by = :person order by account_id, rule_id`,
  ],
  [
    'findings decided',
    `select account.name as account, decided_at as at, term, state as is, why
       from finding join account using (account_id) where person_id = :person order by account_id, finding_id`,
  ],
  [
    'told of alerts',
    `select account.name as account, way as by, address
       from alert_target join account using (account_id) where person_id = :person and not is_removed order by account_id, alert_target_id`,
  ],
  [
    'saved files',
    `select account.name as account, at, export.name as file
       from export join account using (account_id) where person_id = :person order by account_id, export_id`,
  ],
];

export async function loadPersonData(db: Db, personId: number): Promise<PersonData> {
  const data: PersonData = {};
  for (const [name, sql] of PARTS) {
    const { rows } = await db.raw<{ rows: Record<string, unknown>[] }>(sql, { person: personId });
    data[name] = rows;
  }
  return data;
}

/** Texts that people wrote, or that tell of people, with the table and the column in which they stand. */
const TEXTS = [
  ['ledger_entry', 'what'],
  ['ledger_entry', 'why'],
  ['note', 'body'],
  ['change_comment', 'body'],
  ['second_look', 'note'],
  ['mention', 'body'],
  ['rule_version', 'why'],
  ['rule', 'trouble'],
  ['finding', 'why'],
] as const;

/**
 * Removes a person: a number stands in the place of the name, in texts of the ledger, notes and comments too; sign-in, sessions,
 * links and roles go.
 * @param as what stands in the place of the name
 */
export async function removePerson(
  db: Db,
  person: { id: number; name: string; as: string; at: Date },
): Promise<void> {
  const { id, name, as, at } = person;
  // The whole name only: Ana stays in Anabel.
  const pattern = `(?<!\\w)${name.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&')}(?!\\w)`;
  await db.raw(`set local gatepost.removes_person = 'yes'`);
  for (const [table, column] of TEXTS)
    await db.raw(
      `update :table: set :column: = regexp_replace(:column:, :pattern, :as, 'gi')
        where position(lower(:name) in lower(:column:)) > 0`,
      { table, column, name, as, pattern },
    );
  await db.raw(`set local gatepost.removes_person = 'no'`);
  const emails = db('sign_in').where({ person_id: id }).select('email');
  await db('sign_in_failure').whereIn('email', emails).delete();
  await db('sign_in_event').where({ person_id: id }).orWhereIn('email', emails).delete();
  await db('sign_in_link').where({ person_id: id }).delete();
  await db('sign_in').where({ person_id: id }).delete();
  await db('mention').where({ person_id: id }).delete();
  await db('member').where({ person_id: id }).delete();
  await db('person').where({ person_id: id }).update({ name: as, removed_at: at });
}

/**
 * Deletes lines of the logs that are older than their account keeps them; and what is over of signing in: sessions, links, and tries
 * in vain of a day ago, which strangers can make as many of as they like.
 * @returns how many lines of the logs went
 */
export async function deleteOldLogs(db: Db): Promise<number> {
  const { rowCount: exports } = await db.raw<{ rowCount: number }>(
    `delete from export using account
      where account.account_id = export.account_id and at < clock_now() - log_days * interval '1 day'`,
  );
  // A sign-in belongs to all accounts of the person: the one that keeps longest decides.
  const { rowCount: events } = await db.raw<{ rowCount: number }>(
    `delete from sign_in_event event
      where at < clock_now() - interval '1 day' * coalesce(
        (select max(log_days) from member join account using (account_id) where member.person_id = event.person_id),
        (select max(log_days) from account), 365)`,
  );
  await db('sign_in_failure').where('last_at', '<', db.raw(`clock_now() - interval '1 day'`)).delete();
  await db('sign_in_session').where('expires_at', '<', db.raw('clock_now()')).delete();
  await db('sign_in_verification').where('expires_at', '<', db.raw('clock_now()')).delete();
  await db('sign_in_link').where('ends_at', '<', db.raw('clock_now()')).delete();
  return exports + events;
}
