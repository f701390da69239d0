import type { Knex } from 'knex';

/** What sending must remember to be trusted: when to begin, what the platform has seen, and how long a stop lasts; and who knew what. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- a tray that is sent later: it is frozen, and can be taken back until then
    alter table change_set add column send_at timestamptz;
    -- the platform's revision after the newest answer: a read-back of an older one says nothing yet
    alter table change_set add column platform_revision bigint;
    -- how often the platform put the change off
    alter table change add column attempts smallint not null default 0;
    -- the first day on which a stop does not act any more
    alter table change add column ends_on date;
    create index change_that_ends on change (account_id, ends_on) where ends_on is not null;
    -- what people say of a change before it is sent
    create table change_comment (
      account_id integer not null,
      change_comment_id integer not null generated always as identity,
      change_id integer not null,
      person_id integer not null references person,
      at timestamptz not null default now(),
      body text not null,
      primary key (account_id, change_comment_id),
      foreign key (account_id, change_id) references change on delete cascade
    );
    create index change_comment_of on change_comment (account_id, change_id);
    -- what a person knew when looking at Today: the newest day with data, and the one before that look
    create table last_look (
      account_id integer not null references account on delete cascade,
      person_id integer not null references person,
      data_to date not null,
      before_to date,
      primary key (account_id, person_id)
    );
    -- who changed it on the platform and on what day, where the platform says so
    alter table outside_change add column changed_by text, add column changed_on date;
    alter table list_version add column changed_by text, add column changed_on date;
    create trigger ledger_is_never_deleted before delete on ledger_entry
      for each statement execute function ledger_is_append_only();
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop trigger ledger_is_never_deleted on ledger_entry;
    drop table last_look;
    drop table change_comment;
    alter table list_version drop column changed_on, drop column changed_by;
    alter table outside_change drop column changed_on, drop column changed_by;
    alter table change drop column ends_on, drop column attempts;
    alter table change_set drop column platform_revision, drop column send_at;
  `);
}
