import type { Knex } from 'knex';

/**
 * Facts and terms packed in columns beside their rows, so that a window is read in a few pieces; and a version of the account
 * that rises with each change of its facts or terms: while it stays, none of them is read again.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table account add column facts_version bigint not null default 1;
    create table packed_day (
      account_id integer not null references account on delete cascade,
      day date not null,
      columns bytea not null,
      primary key (account_id, day)
    );
    create table packed_terms (
      account_id integer not null references account on delete cascade,
      piece integer not null,
      columns bytea not null,
      primary key (account_id, piece)
    );
    -- to compress them takes longer than to read them
    alter table packed_day alter column columns set storage external;
    alter table packed_terms alter column columns set storage external;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table packed_day, packed_terms; alter table account drop column facts_version');
}
