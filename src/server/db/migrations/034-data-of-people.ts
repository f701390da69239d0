import type { Knex } from 'knex';

/**
 * A person can be removed: a number stands in the place of the name then, in the ledger too, which is changed for nothing else.
 * Logs of sign-ins and of saved files are kept for as long as the account says.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table person add column removed_at timestamptz;
    alter table account add column log_days integer not null default 365 check (log_days between 1 and 3650);
    create or replace function ledger_is_append_only() returns trigger language plpgsql as $$
    begin
      -- set for one transaction, in which a person is removed
      if current_setting('gatepost.removes_person', true) = 'yes' then
        return null;
      end if;
      raise exception 'the ledger is only ever added to';
    end $$;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    create or replace function ledger_is_append_only() returns trigger language plpgsql as $$
    begin
      raise exception 'the ledger is only ever added to';
    end $$;
    alter table account drop column log_days;
    alter table person drop column removed_at;
  `);
}
