import type { Knex } from 'knex';

/** The words at fault of past weeks, as trials of rules need them: kept until facts, targets or the lag are others. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- fitted_to: tells the facts, targets and lag apart; weeks: the evening of each, and its words with how surely they are at fault
    create table fitted_weeks (
      account_id integer primary key references account on delete cascade,
      facts_version integer not null,
      fitted_to text not null,
      weeks jsonb not null,
      at timestamptz not null default clock_now()
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table fitted_weeks');
}
