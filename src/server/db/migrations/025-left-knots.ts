import type { Knex } from 'knex';

/** Knots of an account that somebody looked at and left as they are: they come back when they are otherwise. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table left_knot (
      account_id integer not null references account on delete cascade,
      kind text not null check (kind in ('conflict')),
      -- what it is about, the same for the same knot
      key text collate "C" not null,
      -- how it was when it was left
      state text not null,
      why text not null,
      -- the day up to which it is left; null: until it is otherwise
      until date,
      person_id integer not null references person,
      at timestamptz not null default clock_now(),
      primary key (account_id, kind, key)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table left_knot');
}
