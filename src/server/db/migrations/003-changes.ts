import type { Knex } from 'knex';

/** The tray, what was sent from it, and the ledger. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table change_set (
      account_id integer not null references account on delete cascade,
      change_set_id integer not null generated always as identity,
      state text not null check (state in ('draft', 'sending', 'confirmed', 'partly failed')),
      opened_at timestamptz not null default now(),
      sent_at timestamptz,
      sent_by integer references person,
      -- the platform's day in progress when it was sent: what was sent acts from that day on
      sent_day date,
      -- why sending does not go on at the moment, in words
      trouble text,
      primary key (account_id, change_set_id)
    );
    create unique index change_set_one_draft on change_set (account_id) where state = 'draft';

    create table change (
      account_id integer not null,
      change_id integer not null generated always as identity,
      change_set_id integer not null,
      -- the idempotency key: a change that is drafted again is a new change with a new key
      key uuid not null,
      -- what the change is about, either way (core: changeKey)
      natural_key text not null,
      kind text not null,
      body jsonb not null,
      why text,
      -- a reason given for stopping a protected term in spite of it
      forced_because text,
      -- drafted → sent (applied | refused) → there | missing | different, as the read-back found
      state text not null check (state in ('drafted', 'applied', 'refused', 'there', 'missing', 'different')),
      answer_code text,
      answer_text text,
      platform_id text,
      -- what its terms cost in the window before it was sent
      before jsonb,
      -- why an earlier attempt at the same change failed
      failed_before text,
      -- the change this one undoes
      undoes integer,
      drafted_by integer not null references person,
      drafted_at timestamptz not null default now(),
      primary key (account_id, change_id),
      unique (account_id, key),
      foreign key (account_id, change_set_id) references change_set on delete cascade
    );
    create unique index change_once_in_a_set on change (account_id, change_set_id, natural_key);

    create table ledger_entry (
      account_id integer not null references account on delete cascade,
      ledger_entry_id integer not null generated always as identity,
      at timestamptz not null default now(),
      actor text not null check (actor in ('person', 'rule', 'read-back')),
      person_id integer references person,
      -- change, keep, load
      about text not null,
      what text not null,
      why text,
      before jsonb,
      after jsonb,
      change_id integer,
      primary key (account_id, ledger_entry_id),
      check ((actor = 'person') = (person_id is not null))
    );
    create index ledger_newest on ledger_entry (account_id, ledger_entry_id desc);

    create function ledger_is_append_only() returns trigger language plpgsql as $$
    begin
      raise exception 'the ledger is only ever added to';
    end $$;
    create trigger ledger_is_append_only before update on ledger_entry
      for each statement execute function ledger_is_append_only();

    -- heartbeat of the processes that work on jobs, so that a dead one's jobs are taken over
    create table job_process (
      process_id text primary key,
      seen_at timestamptz not null
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(
    'drop table job_process, ledger_entry, change, change_set cascade; drop function ledger_is_append_only',
  );
}
