import type { Knex } from 'knex';

/** The columns that say when something was. */
const TIMES = {
  account: 'created_at',
  report_file: 'created_at',
  protected_term: 'created_at',
  change_set: 'opened_at',
  change: 'drafted_at',
  ledger_entry: 'at',
  recipe: 'created_at',
  set_aside: 'created_at',
  note: 'created_at',
  word_tag: 'created_at',
  saved_view: 'saved_at',
  pass: 'opened_at',
  list_version: 'at',
  hang_rule: 'made_at',
  outside_change: 'at',
  change_comment: 'at',
};

/** What a connection takes for now can be set: what is told of the past is told by the same work as what happens today. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create function clock_now() returns timestamptz language sql stable as
      $$ select coalesce(nullif(current_setting('gatepost.now', true), '')::timestamptz, now()) $$
  `);
  for (const [table, column] of Object.entries(TIMES))
    await db.raw('alter table ?? alter column ?? set default clock_now()', [table, column]);
}

export async function down(db: Knex): Promise<void> {
  for (const [table, column] of Object.entries(TIMES))
    await db.raw('alter table ?? alter column ?? set default now()', [table, column]);
  await db.raw('drop function clock_now()');
}
