import type { Knex } from 'knex';

/** Of campaigns that could serve the same query, the one of the highest priority is asked first. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table campaign add column priority text
      constraint campaign_priority_check check (priority in ('high', 'medium', 'low'))
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table campaign drop column priority');
}
