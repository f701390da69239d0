import createKnex, { type Knex } from 'knex';
import pg from 'pg';

pg.types.setTypeParser(pg.types.builtins.INT8, Number); // micro-units stay far below 2^53
pg.types.setTypeParser(pg.types.builtins.DATE, (day) => day);

/** A connection of the stand-in's own; all its tables lie in the schema `standin`. */
export function connectStandin(url: string): Knex {
  return createKnex({ client: 'pg', connection: url, searchPath: ['standin'], pool: { min: 0, max: 6 } });
}

const ELEMENTS = ['campaign', 'ad_group', 'keyword', 'list', 'hanging', 'negative'] as const;
export type ElementTable = (typeof ELEMENTS)[number] | 'exclusion' | 'placement';

/** Elements are kept whole as JSON beside the few columns that are asked for; the revision tells what changed. */
async function createElementTable(db: Knex, element: ElementTable): Promise<void> {
  await db.schema.createTable(element, (t) => {
    t.text('account_id').notNullable().references('account.id').onDelete('cascade');
    t.text('id').notNullable();
    t.text('status').notNullable();
    t.bigInteger('revision').notNullable();
    t.jsonb('body').notNullable();
    t.primary(['account_id', 'id']);
    t.index(['account_id', 'revision']);
  });
}

const MIGRATIONS = {
  '001-tables': createTables,
  '002-exclusions': (db: Knex) => createElementTable(db, 'exclusion'),
  '003-placements': (db: Knex) => createElementTable(db, 'placement'),
  '004-auctions': forAuctions,
};
type Name = keyof typeof MIGRATIONS;

async function createTables(db: Knex): Promise<void> {
  await db.schema.createTable('account', (t) => {
    t.text('id').primary();
    t.text('name').notNullable();
    t.text('currency').notNullable();
    t.integer('seed').notNullable();
    t.date('today').notNullable();
    t.bigInteger('revision').notNullable();
    t.bigInteger('next_id').notNullable();
  });
  for (const element of ELEMENTS) await createElementTable(db, element);
  await db.schema.createTable('query', (t) => {
    t.text('account_id').notNullable().references('account.id').onDelete('cascade');
    t.integer('id').notNullable();
    t.text('text').notNullable();
    t.double('daily').notNullable();
    t.double('ctr').notNullable();
    t.double('cvr').notNullable();
    t.bigInteger('value_micros').notNullable();
    t.boolean('unreported').notNullable();
    t.jsonb('candidates').notNullable();
    t.primary(['account_id', 'id']);
  });
  await db.schema.createTable('traffic_day', (t) => {
    t.text('account_id').notNullable().references('account.id').onDelete('cascade');
    t.date('day').notNullable();
    t.integer('query_id').notNullable();
    t.text('ad_group_id').notNullable();
    t.text('keyword_id');
    t.integer('impressions').notNullable();
    t.integer('clicks').notNullable();
    t.bigInteger('cost_micros').notNullable();
    // conversions and their value as known at the first report of the day, and one and two days later
    t.specificType('conversions', 'integer[]').notNullable();
    t.specificType('value_micros', 'bigint[]').notNullable();
    t.primary(['account_id', 'day', 'query_id']);
  });
  await db.schema.createTable('applied_change', (t) => {
    t.text('account_id').notNullable().references('account.id').onDelete('cascade');
    t.text('key').notNullable();
    t.text('digest').notNullable();
    t.jsonb('answer').notNullable();
    t.primary(['account_id', 'key']);
  });
}

/** A query had a fixed order of places; what it means is what the keywords of those places said. */
async function forAuctions(db: Knex): Promise<void> {
  await db.schema.alterTable('account', (t) => t.date('traffic_from'));
  await db.raw('update account set traffic_from = today');
  await db.schema.alterTable('account', (t) => t.dropNullable('traffic_from'));
  await db.schema.alterTable('query', (t) => {
    t.bigInteger('cpc_micros').notNullable().defaultTo(0);
    t.specificType('means', 'text[]').notNullable().defaultTo('{}');
    t.specificType('automatic_in', 'text[]').notNullable().defaultTo('{}');
  });
  await db.raw(`update query q set
    cpc_micros = coalesce((candidates->0->>'cpcMicros')::bigint, 0),
    automatic_in = array(
      select c->>'adGroupId' from jsonb_array_elements(candidates) c where c->>'keywordId' is null),
    means = array(
      select distinct word
        from jsonb_array_elements(candidates) c
        join keyword k on (k.account_id, k.id) = (q.account_id, c->>'keywordId'),
             regexp_split_to_table(k.body->>'text', ' ') word)`);
  await db.schema.alterTable('query', (t) => t.dropColumn('candidates'));
}

/** Brings the stand-in's schema up to date; does nothing when it is. */
export async function migrateStandin(url: string): Promise<void> {
  const db = connectStandin(url);
  try {
    await db.raw('create schema if not exists standin');
    await db.migrate.latest({
      schemaName: 'standin',
      migrationSource: {
        getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS) as Name[]),
        getMigrationName: (name: Name) => name,
        getMigration: (name: Name) =>
          Promise.resolve({
            up: MIGRATIONS[name],
            down: () => Promise.reject(new Error('reset the database instead')),
          }),
      },
    });
  } finally {
    await db.destroy();
  }
}
