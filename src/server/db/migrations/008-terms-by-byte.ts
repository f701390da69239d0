import type { Knex } from 'knex';

/**
 * Terms are compared byte by byte, which in UTF-8 is the order of code points, as before: asking the system's locale for
 * every comparison takes most of the time in which a large load fills the index.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table term alter column key type text collate "C"');
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table term alter column key type text collate "default"');
}
