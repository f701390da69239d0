import type { Knex } from 'knex';

/** A tray is put up for a second look, and another person says yes to the changes that he or she saw. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table account add column second_look jsonb not null
      default '{"always": false, "changes": null, "costMicros": null}';
    -- what the person may send without a second look; null for any number
    alter table member add column most_at_once integer check (most_at_once >= 0),
      add column most_in_30_days integer check (most_in_30_days >= 0);

    create table second_look (
      account_id integer not null,
      second_look_id integer not null generated always as identity,
      change_set_id integer not null,
      put_up_by integer not null references person,
      put_up_at timestamptz not null,
      note text not null default '',
      yes_by integer references person,
      yes_at timestamptz,
      -- taken down, put up again, or sent
      ended_at timestamptz,
      primary key (account_id, second_look_id),
      foreign key (account_id, change_set_id) references change_set on delete cascade,
      check ((yes_by is null) = (yes_at is null))
    );
    create unique index second_look_one_up on second_look (account_id, change_set_id) where ended_at is null;

    -- what somebody said yes to, as it was then
    create table second_look_change (
      account_id integer not null,
      second_look_id integer not null,
      change_id integer not null,
      digest text not null,
      primary key (account_id, second_look_id, change_id),
      foreign key (account_id, second_look_id) references second_look on delete cascade,
      foreign key (account_id, change_id) references change on delete cascade
    );
    create index second_look_change_change on second_look_change (account_id, change_id);
    create index change_set_sent_by on change_set (account_id, sent_by, sent_at);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop index change_set_sent_by;
    drop table second_look_change, second_look;
    alter table member drop column most_at_once, drop column most_in_30_days;
    alter table account drop column second_look;
  `);
}
