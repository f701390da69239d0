import type { Knex } from 'knex';

/** Knots of every kind can be left; which came since a person looked last, and how many there were day by day. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table left_knot drop constraint left_knot_kind_check;
    alter table left_knot add constraint left_knot_kind_check
      check (kind in ('conflict', 'needless', 'misspelt', 'duplicate', 'overlap'));

    -- noted: the how manieth noting found it first
    create table known_knot (
      account_id integer not null references account on delete cascade,
      kind text not null,
      key text collate "C" not null,
      noted integer not null,
      primary key (account_id, kind, key)
    );
    -- the noting that a person saw last, and the last one of those that were seen before it
    create table knot_look (
      account_id integer not null references account on delete cascade,
      person_id integer not null references person,
      seen integer not null,
      before integer,
      primary key (account_id, person_id)
    );
    -- the knot that a change is to untangle
    alter table change add column knot jsonb;
    create table knot_day (
      account_id integer not null references account on delete cascade,
      day date not null,
      kind text not null,
      count integer not null,
      cost_micros bigint not null,
      conversions double precision not null,
      primary key (account_id, day, kind)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table change drop column knot;
    drop table knot_day;
    drop table knot_look;
    drop table known_knot;
    delete from left_knot where kind <> 'conflict';
    alter table left_knot drop constraint left_knot_kind_check;
    alter table left_knot add constraint left_knot_kind_check check (kind in ('conflict'));
  `);
}
