import type { Knex } from 'knex';

/** Names of the advertiser, of which no negative is ever offered. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`alter table account add column brand_words text[] not null default '{}'`);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table account drop column brand_words');
}
