import type { Knex } from 'knex';

/** The words at fault that a person knew at the newest look, and at the one before: what came since has turned bad. */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table last_look add column words text[], add column words_before text[]');
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table last_look drop column words, drop column words_before');
}
