import type { Knex } from 'knex';

/**
 * Accounts, people, and the mirror of each account's structure. Every table but `person` (which belongs to no
 * account) starts with account_id, and it leads every primary and foreign key.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table account (
      account_id integer primary key generated always as identity,
      slug text not null unique,
      name text not null,
      platform_account_id text not null unique,
      currency char(3) not null,
      steers_by text not null check (steers_by in ('CPA', 'ACoS')),
      target_micros bigint,
      target_acos double precision,
      default_match text not null default 'phrase' check (default_match in ('broad', 'phrase', 'exact')),
      keeper_conversions double precision not null default 1,
      product_code_pattern text,
      window_days integer not null default 30,
      lag_days integer not null default 2,
      -- rises in each transaction that writes facts or the mirror; names the snapshots made from them
      data_version bigint not null default 1,
      structure_revision bigint not null default 0,
      -- the platform's day in progress, as it said when it was last asked
      platform_day date,
      created_at timestamptz not null default now()
    );

    create table person (
      person_id integer primary key generated always as identity,
      name text not null unique
    );

    create table campaign (
      account_id integer not null references account on delete cascade,
      campaign_id integer not null generated always as identity,
      platform_id text,
      name text not null,
      status text not null check (status in ('live', 'paused', 'ended', 'removed', 'unknown')),
      channel text,
      location text[] not null default '{}',
      audience text[] not null default '{}',
      device text[] not null default '{}',
      language text[] not null default '{}',
      budget_micros bigint,
      shared_budget text,
      end_date date,
      primary key (account_id, campaign_id),
      unique (account_id, platform_id)
    );
    create index campaign_name on campaign (account_id, name);

    create table ad_group (
      account_id integer not null,
      ad_group_id integer not null generated always as identity,
      campaign_id integer not null,
      platform_id text,
      name text not null,
      status text not null check (status in ('live', 'paused', 'ended', 'removed', 'unknown')),
      primary key (account_id, ad_group_id),
      unique (account_id, platform_id),
      foreign key (account_id, campaign_id) references campaign on delete cascade
    );
    create index ad_group_name on ad_group (account_id, campaign_id, name);

    -- text_key is the normalised text (rules 1.1); '' with match 'automatic' stands for no keyword
    create table keyword (
      account_id integer not null,
      keyword_id integer not null generated always as identity,
      ad_group_id integer not null,
      platform_id text,
      text text not null,
      text_key text not null,
      match text not null check (match in ('broad', 'phrase', 'exact', 'automatic', 'unknown')),
      status text not null check (status in ('live', 'paused', 'ended', 'removed', 'unknown')),
      bid_micros bigint,
      primary key (account_id, keyword_id),
      unique (account_id, platform_id),
      foreign key (account_id, ad_group_id) references ad_group on delete cascade
    );
    create index keyword_text on keyword (account_id, ad_group_id, text_key, match);

    create table shared_list (
      account_id integer not null references account on delete cascade,
      list_id integer not null generated always as identity,
      platform_id text not null,
      name text not null,
      primary key (account_id, list_id),
      unique (account_id, platform_id)
    );

    -- campaign_id null: the list hangs on the whole account
    create table list_hanging (
      account_id integer not null,
      list_id integer not null,
      campaign_id integer,
      unique nulls not distinct (account_id, list_id, campaign_id),
      foreign key (account_id, list_id) references shared_list on delete cascade,
      foreign key (account_id, campaign_id) references campaign on delete cascade
    );

    create table negative (
      account_id integer not null references account on delete cascade,
      negative_id integer not null generated always as identity,
      platform_id text not null,
      text text not null,
      match text not null check (match in ('broad', 'phrase', 'exact')),
      place_kind text not null check (place_kind in ('account', 'campaign', 'adGroup', 'list')),
      campaign_id integer,
      ad_group_id integer,
      list_id integer,
      created_at timestamptz not null,
      primary key (account_id, negative_id),
      unique (account_id, platform_id),
      foreign key (account_id, campaign_id) references campaign on delete cascade,
      foreign key (account_id, ad_group_id) references ad_group on delete cascade,
      foreign key (account_id, list_id) references shared_list on delete cascade,
      check ((campaign_id is not null) = (place_kind = 'campaign')
         and (ad_group_id is not null) = (place_kind = 'adGroup')
         and (list_id is not null) = (place_kind = 'list'))
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(
    'drop table negative, list_hanging, shared_list, keyword, ad_group, campaign, person, account cascade',
  );
}
