import type { Knex } from 'knex';

/** Which files each person saved from an account, under which name. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table export (
      account_id integer not null references account on delete cascade,
      export_id bigint not null generated always as identity,
      person_id integer not null references person,
      name text not null,
      at timestamptz not null default clock_now(),
      primary key (account_id, export_id)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table export');
}
