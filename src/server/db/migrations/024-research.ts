import type { Knex } from 'knex';

/** Research sheets: ideas that were gathered before they cost anything, where they came from, and what was decided. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table research_sheet (
      account_id integer not null references account on delete cascade,
      research_sheet_id integer not null generated always as identity,
      name text not null,
      -- words that all of it is about, and texts that are struck out of all ideas
      stems text[] not null default '{}',
      struck text[] not null default '{}',
      -- rises whenever the sheet is another
      version bigint not null default 1,
      -- rises only when ideas come
      ideas_version bigint not null default 1,
      made_by integer not null references person,
      made_at timestamptz not null default clock_now(),
      -- thrown away, but it can be taken back
      dropped_at timestamptz,
      primary key (account_id, research_sheet_id)
    );
    create unique index research_sheet_name on research_sheet (account_id, name) where dropped_at is null;

    create table research_source (
      account_id integer not null,
      research_source_id integer not null generated always as identity,
      research_sheet_id integer not null,
      kind text not null
        check (kind in ('ideas', 'completions', 'combinations', 'file', 'paste', 'brief', 'keywords', 'pack')),
      title text not null,
      -- what was asked for, so that it can be asked again
      asked jsonb not null,
      -- ideas that it gave, and those that the sheet did not have
      given integer not null,
      added integer not null,
      -- what it did not give, in words; null where it gave all
      missing text,
      -- taken out of the sheet, with the ideas that no other source gave; it can be put back
      is_out boolean not null default false,
      person_id integer not null references person,
      at timestamptz not null default clock_now(),
      primary key (account_id, research_source_id),
      foreign key (account_id, research_sheet_id) references research_sheet on delete cascade
    );

    create table research_idea (
      account_id integer not null,
      research_sheet_id integer not null,
      -- the normalised text (rules 1.1)
      key text collate "C" not null,
      volume bigint,
      volume_from bigint,
      volume_to bigint,
      opening_bid_micros bigint,
      relatedness real,
      -- sources that gave it, the first first
      sources integer[] not null,
      -- null while nothing is decided; what is stopped is for the gate to say
      verdict text check (verdict in ('kept', 'dropped')),
      decided_by integer references person,
      -- the group that people put it in; null where it is in none
      group_name text,
      primary key (account_id, research_sheet_id, key),
      foreign key (account_id, research_sheet_id) references research_sheet on delete cascade
    );

    -- locations that are served, and names of locations that are ordinary words in this account
    create table location_word (
      account_id integer not null references account on delete cascade,
      -- as people write it, normalised
      text text not null,
      said text not null check (said in ('served', 'no location')),
      person_id integer not null references person,
      at timestamptz not null default clock_now(),
      primary key (account_id, text)
    );

    -- ready lists that people added; those that ship with Gate Post stand in files
    create table starter_pack (
      account_id integer not null references account on delete cascade,
      starter_pack_id integer not null generated always as identity,
      name text not null,
      -- as in its file (packs/README.md)
      body jsonb not null,
      added_by integer not null references person,
      added_at timestamptz not null default clock_now(),
      primary key (account_id, starter_pack_id),
      unique (account_id, name)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table location_word, starter_pack, research_idea, research_source, research_sheet');
}
