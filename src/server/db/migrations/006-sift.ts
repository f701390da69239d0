import type { Knex } from 'knex';

/** What Sift needs: products excluded, terms set aside, notes, marks on words, saved views, and passes. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table keyword add column changed_on date;

    -- rises in each transaction that writes the tray or a verdict; names what is laid over a snapshot
    alter table account add column decision_version bigint not null default 1;

    create table product_exclusion (
      account_id integer not null references account on delete cascade,
      product_exclusion_id integer not null generated always as identity,
      platform_id text not null,
      code text not null,
      place_kind text not null check (place_kind in ('campaign', 'adGroup')),
      campaign_id integer,
      ad_group_id integer,
      created_at timestamptz not null,
      primary key (account_id, product_exclusion_id),
      unique (account_id, platform_id),
      foreign key (account_id, campaign_id) references campaign on delete cascade,
      foreign key (account_id, ad_group_id) references ad_group on delete cascade,
      check ((campaign_id is not null) = (place_kind = 'campaign')
         and (ad_group_id is not null) = (place_kind = 'adGroup'))
    );

    -- key is the term's own key; it comes back when it has so many more clicks after the day
    create table set_aside (
      account_id integer not null references account on delete cascade,
      key text not null,
      raw text not null,
      more_clicks integer not null check (more_clicks > 0),
      after_day date not null,
      person_id integer not null references person,
      created_at timestamptz not null default now(),
      primary key (account_id, key)
    );

    create table note (
      account_id integer not null references account on delete cascade,
      note_id integer not null generated always as identity,
      about_kind text not null check (about_kind in ('term', 'theme')),
      -- the term's key, or the theme's words in order, with spaces between
      about text not null,
      body text not null,
      person_id integer not null references person,
      created_at timestamptz not null default now(),
      primary key (account_id, note_id)
    );
    create index note_about on note (account_id, about_kind, about);

    -- neutral: a run of words that is never shown again; place: one that names a place
    create table word_mark (
      account_id integer not null references account on delete cascade,
      text text not null,
      mark text not null check (mark in ('neutral', 'place')),
      person_id integer not null references person,
      created_at timestamptz not null default now(),
      primary key (account_id, text)
    );

    create table saved_view (
      account_id integer not null references account on delete cascade,
      name text not null,
      -- filters as they stand in the URL
      search text not null,
      person_id integer not null references person,
      saved_at timestamptz not null default now(),
      primary key (account_id, name)
    );

    -- a pass is one reading of the terms; it ends when the next report comes after someone has read
    create table pass (
      account_id integer not null references account on delete cascade,
      pass_id integer not null generated always as identity,
      opened_at timestamptz not null default now(),
      -- terms above this number came since the pass before
      newest_term_id integer not null,
      primary key (account_id, pass_id)
    );

    insert into pass (account_id, newest_term_id)
    select account_id, 0 from account where exists (select from term where term.account_id = account.account_id);

    create table looked_at (
      account_id integer not null,
      pass_id integer not null,
      term_id integer not null,
      primary key (account_id, pass_id, term_id),
      foreign key (account_id, pass_id) references pass on delete cascade
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table looked_at, pass, saved_view, word_mark, note, set_aside, product_exclusion;
    alter table account drop column decision_version;
    alter table keyword drop column changed_on;
  `);
}
