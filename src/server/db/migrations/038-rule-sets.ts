import type { Knex } from 'knex';

/** Sets of rules: rules in an order that says which wins, and where they look at most. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- place: where the rules of the set look at most; null: wherever each says
    create table rule_set (
      account_id integer not null references account on delete cascade,
      rule_set_id integer not null generated always as identity,
      name text not null,
      place jsonb,
      primary key (account_id, rule_set_id),
      unique (account_id, name)
    );

    -- rank: its place in the order of its set, the first first
    alter table rule
      add column rule_set_id integer,
      add column rank integer,
      add check ((rule_set_id is null) = (rank is null)),
      add foreign key (account_id, rule_set_id) references rule_set;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table rule drop column rule_set_id, drop column rank;
    drop table rule_set;
  `);
}
