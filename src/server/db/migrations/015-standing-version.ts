import type { Knex } from 'knex';

/**
 * A version that rises with each decision but those that only put changes in the draft or take them out: while it stays, a
 * workbench is laid on from where it was.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table account add column standing_version bigint not null default 1');
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table account drop column standing_version');
}
