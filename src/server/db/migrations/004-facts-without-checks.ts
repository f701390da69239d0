import type { Knex } from 'knex';

/**
 * A load looks the account up once and locks it; asking for it again with every one of a million rows takes half of the
 * time. Whoever removes an account removes its facts first.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table term_day drop constraint term_day_account_id_fkey');
  await db.raw('alter table term drop constraint term_account_id_fkey');
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['term', 'term_day'])
    await db.raw('alter table ?? add foreign key (account_id) references account on delete cascade', [table]);
}
