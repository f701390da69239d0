import type { Knex } from 'knex';

/** Lane plans: campaigns in tiers that are asked one after another. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- tiers: the one that is asked first comes first; each has a name, campaigns by id, and entry terms
    create table lane_plan (
      account_id integer not null references account on delete cascade,
      lane_plan_id integer not null generated always as identity,
      name text not null,
      tiers jsonb not null,
      primary key (account_id, lane_plan_id),
      unique (account_id, name)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table lane_plan');
}
