import type { Knex } from 'knex';

/**
 * Rules on search terms: each with its versions, the looks that it took (one for each version of the facts), and what it found.
 * A term is found by a rule once; what was refused stays refused.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table rule (
      account_id integer not null references account on delete cascade,
      rule_id integer not null generated always as identity,
      state text not null check (state in ('draft', 'on', 'off', 'removed')),
      -- the one that holds
      version integer not null,
      primary key (account_id, rule_id)
    );

    create table rule_version (
      account_id integer not null,
      rule_id integer not null,
      version integer not null,
      name text not null,
      body jsonb not null,
      person_id integer not null references person,
      at timestamptz not null default clock_now(),
      why text not null default '',
      primary key (account_id, rule_id, version),
      foreign key (account_id, rule_id) references rule on delete cascade
    );
    create index rule_version_of_person on rule_version (person_id);

    -- evening: the newest day that the rule knew
    create table rule_look (
      account_id integer not null,
      rule_id integer not null,
      version integer not null,
      facts_version bigint not null,
      evening date not null,
      at timestamptz not null default clock_now(),
      primary key (account_id, rule_id, version, facts_version),
      foreign key (account_id, rule_id, version) references rule_version on delete cascade
    );

    -- term: its key; sums: what the rule saw, from one day to another; ran_in: ids of the ad groups where it saw it
    create table finding (
      account_id integer not null,
      finding_id integer not null generated always as identity,
      rule_id integer not null,
      version integer not null,
      term text not null,
      evening date not null,
      from_day date not null,
      to_day date not null,
      is_code boolean not null,
      sums jsonb not null,
      ran_in jsonb not null,
      state text not null default 'open' check (state in ('open', 'later', 'refused')),
      until date,
      why text not null default '',
      person_id integer references person,
      decided_at timestamptz,
      primary key (account_id, finding_id),
      unique (account_id, rule_id, term),
      foreign key (account_id, rule_id, version) references rule_version on delete cascade
    );
    create index finding_of_person on finding (person_id);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table finding, rule_look, rule_version, rule');
}
