import type { Knex } from 'knex';

/** Keyword reports: figures of keywords by day, and which kinds of conversion count. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table report_file drop constraint report_file_kind_check;
    alter table report_file add constraint report_file_kind_check
      check (kind in ('search terms', 'keywords', 'keyword ideas', 'structure'));

    create table keyword_day (
      account_id integer not null references account on delete cascade,
      keyword_id integer not null,
      day date not null,
      -- the first day of a sum over several, whose last one is the day
      from_day date not null,
      report_file_id integer not null,
      impressions bigint,
      clicks bigint,
      cost_micros bigint,
      conversions double precision,
      value_micros bigint,
      bid_micros bigint,
      -- of the impressions that could have been had, 0..1
      impression_share double precision,
      quality double precision,
      -- the later load that knows better; null: these figures hold
      superseded_by integer,
      primary key (account_id, keyword_id, day, report_file_id),
      foreign key (account_id, report_file_id) references report_file on delete cascade
    );
    create index keyword_day_of_load on keyword_day (account_id, report_file_id);
    create index keyword_day_superseded on keyword_day (account_id, superseded_by) where superseded_by is not null;

    -- kind: the header of its column
    create table keyword_day_kind (
      account_id integer not null,
      keyword_id integer not null,
      day date not null,
      report_file_id integer not null,
      kind text collate "C" not null,
      conversions double precision not null,
      primary key (account_id, keyword_id, day, report_file_id, kind),
      foreign key (account_id, keyword_id, day, report_file_id) references keyword_day on delete cascade
    );

    -- empty: what the report itself calls conversions
    alter table account add column conversion_kinds text[] not null default '{}';
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table account drop column conversion_kinds;
    drop table keyword_day_kind;
    drop table keyword_day;
    alter table report_file drop constraint report_file_kind_check;
    alter table report_file add constraint report_file_kind_check
      check (kind in ('search terms', 'keyword ideas', 'structure'));
  `);
}
