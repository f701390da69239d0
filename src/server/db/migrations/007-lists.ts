import type { Knex } from 'knex';

/** What Lists needs: since when a list hangs, placements, labels, versions of lists, and rules by which they hang. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table campaign add column label text[] not null default '{}';
    alter table shared_list add column holds text not null default 'words' check (holds in ('words', 'placements'));
    -- the first day on which it hung there, where the platform says so
    alter table list_hanging add column since date;
    -- the search term from which a negative was made
    alter table change add column from_term text;
    create index change_about on change (account_id, natural_key);

    create table placement (
      account_id integer not null references account on delete cascade,
      placement_id integer not null generated always as identity,
      platform_id text not null,
      list_id integer not null,
      address text not null,
      created_at timestamptz not null,
      primary key (account_id, placement_id),
      unique (account_id, platform_id),
      foreign key (account_id, list_id) references shared_list on delete cascade
    );
    create index placement_of_list on placement (account_id, list_id);
    create index negative_of_list on negative (account_id, list_id) where list_id is not null;

    -- what each read-back found changed in a list; it outlives the list
    create table list_version (
      account_id integer not null references account on delete cascade,
      list_version_id integer not null generated always as identity,
      list_id integer not null,
      list_name text not null,
      at timestamptz not null default now(),
      -- who sent it; null: somebody else, on the platform
      person_id integer references person,
      what text not null check (what in ('made', 'changed', 'removed')),
      holds text not null check (holds in ('words', 'placements')),
      -- core: ListDifference
      difference jsonb not null,
      -- what somebody else changed waits until a person takes it over or undoes it
      state text not null check (state in ('own', 'waits', 'taken over', 'undone')),
      primary key (account_id, list_version_id)
    );
    create index list_version_newest on list_version (account_id, list_id, list_version_id desc);

    -- list_id as changes name it, so that a list in the tray can have a rule
    create table hang_rule (
      account_id integer not null references account on delete cascade,
      hang_rule_id integer not null generated always as identity,
      list_id text not null,
      -- core: HangRule
      rule jsonb not null,
      made_by integer not null references person,
      made_at timestamptz not null default now(),
      primary key (account_id, hang_rule_id)
    );
    -- campaigns for which a person said no to the rule
    create table hang_rule_exception (
      account_id integer not null,
      hang_rule_id integer not null,
      campaign_id integer not null,
      primary key (account_id, hang_rule_id, campaign_id),
      foreign key (account_id, hang_rule_id) references hang_rule on delete cascade,
      foreign key (account_id, campaign_id) references campaign on delete cascade
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table hang_rule_exception, hang_rule, list_version, placement;
    drop index change_about, negative_of_list;
    alter table change drop column from_term;
    alter table list_hanging drop column since;
    alter table shared_list drop column holds;
    alter table campaign drop column label;
  `);
}
