import type { Knex } from 'knex';

/** A person may stop a tray while it is sent: what is not answered yet goes back to the draft. */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table change_set add column is_stopped boolean not null default false');
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table change_set drop column is_stopped');
}
