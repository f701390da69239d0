import type { Knex } from 'knex';

/**
 * A structure file may be loaded as often as it comes: what it tells is how an account stands now, and the same bytes
 * after a hand-over tell that nothing was done.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    drop index report_file_loaded_once;
    create unique index report_file_loaded_once on report_file (account_id, digest)
      where state = 'loaded' and kind <> 'structure';
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    update report_file f set state = 'taken back'
    where state = 'loaded' and exists (
      select from report_file later
      where later.account_id = f.account_id and later.digest = f.digest and later.state = 'loaded'
        and later.report_file_id > f.report_file_id
    );
    drop index report_file_loaded_once;
    create unique index report_file_loaded_once on report_file (account_id, digest) where state = 'loaded';
  `);
}
