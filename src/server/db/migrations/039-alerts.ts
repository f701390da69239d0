import type { Knex } from 'knex';

/** Alerts: what came up, who is told of it, and each delivery with how often it was tried. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- key: of one happening, so that each comes up once; leads_to: a path within the account
    create table alert (
      account_id integer not null references account on delete cascade,
      alert_id integer not null generated always as identity,
      kind text not null check (kind in ('rule', 'load', 'drift', 'tray', 'target')),
      key text not null,
      says text not null,
      leads_to text not null,
      at timestamptz not null default clock_now(),
      primary key (account_id, alert_id),
      unique (account_id, kind, key)
    );

    -- address: of mail, or of a hook; secret: signs what a hook is sent; kinds: of alerts; times of day: minutes since midnight in time_zone
    create table alert_target (
      account_id integer not null references account on delete cascade,
      alert_target_id integer not null generated always as identity,
      way text not null check (way in ('mail', 'hook')),
      address text not null,
      secret text,
      kinds text[] not null,
      quiet_from integer check (quiet_from between 0 and 1439),
      quiet_to integer check (quiet_to between 0 and 1439),
      digest_at integer check (digest_at between 0 and 1439),
      time_zone text not null,
      is_on boolean not null default true,
      is_removed boolean not null default false,
      person_id integer not null references person,
      primary key (account_id, alert_target_id),
      check ((quiet_from is null) = (quiet_to is null)),
      check ((way = 'hook') = (secret is not null))
    );
    create index alert_target_of_person on alert_target (person_id);

    create table delivery (
      account_id integer not null,
      delivery_id integer not null generated always as identity,
      alert_target_id integer not null,
      state text not null default 'waits' check (state in ('waits', 'delivered', 'given up')),
      -- when it is tried next, or was tried last
      due_at timestamptz not null,
      tries integer not null default 0,
      trouble text,
      primary key (account_id, delivery_id),
      foreign key (account_id, alert_target_id) references alert_target on delete cascade
    );

    create table delivery_alert (
      account_id integer not null,
      delivery_id integer not null,
      alert_id integer not null,
      primary key (account_id, delivery_id, alert_id),
      foreign key (account_id, delivery_id) references delivery on delete cascade,
      foreign key (account_id, alert_id) references alert on delete cascade
    );
    create index delivery_alert_alert on delivery_alert (account_id, alert_id);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table delivery_alert, delivery, alert_target, alert');
}
