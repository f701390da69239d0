import type { Knex } from 'knex';

/** Search terms, their days, and the report files they came from. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- key is the normalised text; for a product code, a term without a word and the unreported rest it is the raw
    -- text in lower case, which no normalised text can be equal to
    create table term (
      account_id integer not null references account on delete cascade,
      term_id integer not null generated always as identity,
      key text not null,
      raw text not null,
      kind text not null check (kind in ('query', 'code', 'wordless', 'unreported')),
      primary key (account_id, term_id),
      unique (account_id, key)
    );

    create table report_file (
      account_id integer not null references account on delete cascade,
      report_file_id integer not null generated always as identity,
      name text not null,
      source text not null check (source in ('file', 'platform')),
      digest text not null,
      size_bytes bigint not null,
      stored_as text not null,
      -- uploaded → waiting → loading → loaded, or cancelled or failed, from where it can be loaded again
      state text not null check (state in ('uploaded', 'waiting', 'loading', 'loaded', 'cancelled', 'failed')),
      options jsonb not null default '{}',
      rows_read bigint not null default 0,
      cancel_asked boolean not null default false,
      outcome jsonb,
      error text,
      person_id integer references person,
      created_at timestamptz not null default now(),
      loaded_at timestamptz,
      primary key (account_id, report_file_id)
    );
    create unique index report_file_loaded_once on report_file (account_id, digest) where state = 'loaded';
    create index report_file_newest on report_file (account_id, created_at desc);

    create table rejected_row (
      account_id integer not null,
      report_file_id integer not null,
      line integer not null,
      category text not null,
      reason text not null,
      raw text not null,
      primary key (account_id, report_file_id, line),
      foreign key (account_id, report_file_id) references report_file on delete cascade
    );

    create table term_day (
      account_id integer not null references account on delete cascade,
      day date not null,
      ad_group_id integer not null,
      keyword_id integer not null,
      term_id integer not null,
      impressions bigint,
      clicks bigint,
      cost_micros bigint,
      conversions double precision,
      value_micros bigint,
      primary key (account_id, day, ad_group_id, keyword_id, term_id)
    );

    create table protected_term (
      account_id integer not null references account on delete cascade,
      text text not null,
      raw text not null,
      note text,
      person_id integer not null references person,
      created_at timestamptz not null default now(),
      primary key (account_id, text)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table protected_term, term_day, rejected_row, report_file, term cascade');
}
