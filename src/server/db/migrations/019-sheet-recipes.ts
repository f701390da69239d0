import type { Knex } from 'knex';

/** How people like the sheets in which a tray is handed over. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table sheet_recipe (
      account_id integer not null references account on delete cascade,
      sheet_recipe_id integer not null generated always as identity,
      name text not null,
      -- columns with their headings, own words and rows of a file
      body jsonb not null,
      person_id integer not null references person,
      primary key (account_id, sheet_recipe_id),
      unique (account_id, name)
    )
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw('drop table sheet_recipe');
}
