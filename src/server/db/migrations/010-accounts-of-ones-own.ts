import type { Knex } from 'knex';

/**
 * What an account of one's own needs: settings of its own (limits, targets of campaigns and product groups), trays that
 * are handed over where no platform is connected, findings of what others changed outside lists, and a ledger whose
 * entries say how they are undone.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- null: no platform is connected; what is to change is handed over as a sheet
    alter table account alter column platform_account_id drop not null;
    update account set platform_account_id = null where structure_revision = 0;
    -- null: no term is protected for what it brought
    alter table account alter column keeper_conversions drop not null;
    alter table account add column retired_at timestamptz;
    -- core: Limits
    alter table account add column limits jsonb not null default
      '{"accountNegatives":1200,"listNegatives":4000,"listPlacements":20000,"listsOnCampaign":25,"wordsInNegative":12,"charactersInNegative":100}';
    alter table person add column retired_at timestamptz;

    create table campaign_target (
      account_id integer not null,
      campaign_id integer not null,
      target_micros bigint,
      target_acos double precision,
      primary key (account_id, campaign_id),
      foreign key (account_id, campaign_id) references campaign on delete cascade
    );
    create table product_group (
      account_id integer not null references account on delete cascade,
      product_group_id integer not null generated always as identity,
      name text not null,
      target_micros bigint,
      target_acos double precision,
      primary key (account_id, product_group_id),
      unique (account_id, name)
    );
    -- an ad group is in one product group at most
    create table product_group_ad_group (
      account_id integer not null,
      ad_group_id integer not null,
      product_group_id integer not null,
      primary key (account_id, ad_group_id),
      foreign key (account_id, ad_group_id) references ad_group on delete cascade,
      foreign key (account_id, product_group_id) references product_group on delete cascade
    );

    -- handed over → said to be done → confirmed or partly failed, as a structure file shows
    alter table change_set drop constraint change_set_state_check;
    alter table change_set add constraint change_set_state_check check (state in
      ('draft', 'sending', 'handed over', 'said to be done', 'confirmed', 'partly failed'));
    -- drafted → said (a person says that it was carried out) → there | missing | different
    alter table change drop constraint change_state_check;
    alter table change add constraint change_state_check check (state in
      ('drafted', 'applied', 'refused', 'said', 'there', 'missing', 'different'));
    update change_set s set state = 'handed over', trouble = null
      from account a where a.account_id = s.account_id and a.platform_account_id is null and s.state = 'sending';

    -- where a file names a negative, nobody says since when it stands
    alter table negative alter column created_at drop not null;
    update negative set created_at = null where platform_id like 'file:%';
    alter table placement alter column created_at drop not null;

    -- what a person does to take it back (use-cases/ledger: LedgerUndo), and the entry that an entry takes back
    alter table ledger_entry add column undo jsonb;
    alter table ledger_entry add column undoes integer;
    create index ledger_undone on ledger_entry (account_id, undoes) where undoes is not null;

    -- what others changed on the platform outside lists; body is the change as we would have made it
    create table outside_change (
      account_id integer not null references account on delete cascade,
      outside_change_id integer not null generated always as identity,
      at timestamptz not null default now(),
      body jsonb not null,
      said text not null,
      state text not null default 'waits' check (state in ('waits', 'taken over', 'undone')),
      primary key (account_id, outside_change_id)
    );
    create index outside_change_waits on outside_change (account_id) where state = 'waits';

    -- what stands for a campaign or an ad group that a report does not name
    update campaign set name = 'not given' where name = '(not named)';
    update ad_group set name = 'not given' where name = '(not named)';

    -- a source may tell only between what and what a volume lies
    alter table idea add column volume_from bigint;
    alter table idea add column volume_to bigint;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    update ad_group set name = '(not named)' where name = 'not given';
    update campaign set name = '(not named)' where name = 'not given';
    alter table idea drop column volume_from, drop column volume_to;
    drop table outside_change;
    drop index ledger_undone;
    alter table ledger_entry drop column undo, drop column undoes;
    update placement set created_at = now() where created_at is null;
    alter table placement alter column created_at set not null;
    update negative set created_at = now() where created_at is null;
    alter table negative alter column created_at set not null;
    update change_set set state = 'sending' where state in ('handed over', 'said to be done');
    update change set state = 'drafted' where state = 'said';
    alter table change drop constraint change_state_check;
    alter table change add constraint change_state_check check (state in
      ('drafted', 'applied', 'refused', 'there', 'missing', 'different'));
    alter table change_set drop constraint change_set_state_check;
    alter table change_set add constraint change_set_state_check check (state in
      ('draft', 'sending', 'confirmed', 'partly failed'));
    drop table product_group_ad_group, product_group, campaign_target;
    alter table person drop column retired_at;
    alter table account drop column limits, drop column retired_at;
    update account set keeper_conversions = 1 where keeper_conversions is null;
    alter table account alter column keeper_conversions set not null;
    update account set platform_account_id = slug where platform_account_id is null;
    alter table account alter column platform_account_id set not null;
  `);
}
