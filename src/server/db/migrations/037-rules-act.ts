import type { Knex } from 'knex';

/**
 * Rules act by themselves, and some are kept to begin others from. Of those that act is kept: in whose name and since when, what each did about a term (once), and why it did not. A set that a rule
 * sent, and what the ledger tells of it, name the rule.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table rule drop constraint rule_state_check;
    alter table rule
      add check (state in ('draft', 'on', 'off', 'ready', 'removed')),
      add column on_by integer references person,
      add column on_since timestamptz,
      add column trouble text;
    create index rule_on_by on rule (on_by);
    update rule set on_by = v.person_id, on_since = v.at
      from rule_version v
     where v.account_id = rule.account_id and v.rule_id = rule.rule_id and v.version = rule.version and rule.state = 'on';

    alter table change_set
      add column rule_id integer,
      add foreign key (account_id, rule_id) references rule;
    alter table ledger_entry add column rule_id integer;

    -- cost_micros: of the term, in the days that the rule looked at; change_ids: what it sent
    create table rule_act (
      account_id integer not null,
      rule_id integer not null,
      version integer not null,
      term text not null,
      day date not null,
      cost_micros bigint not null,
      change_ids integer[] not null,
      at timestamptz not null default clock_now(),
      primary key (account_id, rule_id, term),
      foreign key (account_id, rule_id, version) references rule_version on delete cascade
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table rule_act;
    alter table ledger_entry drop column rule_id;
    alter table change_set drop column rule_id;
    update rule set state = 'removed' where state = 'ready';
    alter table rule drop constraint rule_state_check;
    alter table rule add check (state in ('draft', 'on', 'off', 'removed'));
    alter table rule drop column on_by, drop column on_since, drop column trouble;
  `);
}
