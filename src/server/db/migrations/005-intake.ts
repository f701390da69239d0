import type { Knex } from 'knex';

/**
 * Loads that can be taken back, recipes, readings of large files, keyword ideas. A fact names the load it came from;
 * what a load replaced is kept beside it.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table term_day add column report_file_id integer;

    alter table report_file add column started_at timestamptz;
    alter table report_file add column kind text not null default 'search terms'
      check (kind in ('search terms', 'keyword ideas', 'structure'));
    alter table report_file add column recipe_id integer;
    alter table report_file drop constraint report_file_state_check;
    -- loaded → taking back → taken back, from where it can be loaded again
    alter table report_file add constraint report_file_state_check check (state in
      ('uploaded', 'waiting', 'loading', 'loaded', 'cancelled', 'failed', 'taking back', 'taken back'));

    -- was_of: the load that the replaced fact came from
    create table replaced_fact (
      account_id integer not null,
      report_file_id integer not null,
      was_of integer,
      day date not null,
      ad_group_id integer not null,
      keyword_id integer not null,
      term_id integer not null,
      impressions bigint,
      clicks bigint,
      cost_micros bigint,
      conversions double precision,
      value_micros bigint,
      foreign key (account_id, report_file_id) references report_file on delete cascade
    );
    create index replaced_fact_of_load on replaced_fact (account_id, report_file_id);
    create index replaced_fact_was_of on replaced_fact (account_id, was_of);

    -- columns: the headers of the files that it reads, in any order
    create table recipe (
      account_id integer not null references account on delete cascade,
      recipe_id integer not null generated always as identity,
      name text not null,
      columns text[] not null,
      decisions jsonb not null,
      person_id integer references person,
      created_at timestamptz not null default now(),
      primary key (account_id, recipe_id),
      unique (account_id, name),
      unique (account_id, columns)
    );

    -- the reading of a whole large file as it was asked for last; made by a job
    create table whole_reading (
      account_id integer not null,
      report_file_id integer not null,
      decisions jsonb not null,
      rows_read bigint not null default 0,
      reading jsonb,
      primary key (account_id, report_file_id),
      foreign key (account_id, report_file_id) references report_file on delete cascade
    );

    create table idea (
      account_id integer not null references account on delete cascade,
      key text not null,
      text text not null,
      volume bigint,
      competition text,
      low_bid_micros bigint,
      high_bid_micros bigint,
      report_file_id integer not null,
      primary key (account_id, key)
    );

    alter table account add column fetches_daily boolean not null default false;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table idea, whole_reading, recipe, replaced_fact;
    alter table term_day drop column report_file_id;
    alter table report_file drop column started_at, drop column kind, drop column recipe_id;
    alter table account drop column fetches_daily;
  `);
}
