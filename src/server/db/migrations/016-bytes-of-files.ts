import type { Knex } from 'knex';

/** The bytes of files that were brought go after as many days as the account says; what was read of them stays. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table account add column file_days integer not null default 90 check (file_days between 1 and 3650);
    alter table report_file add column bytes_gone_at timestamptz;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table report_file drop column bytes_gone_at;
    alter table account drop column file_days;
  `);
}
