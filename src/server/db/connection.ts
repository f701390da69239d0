import createKnex, { type Knex } from 'knex';
import pg from 'pg';

// Micro-units and counts stay far below 2^53; a day is a day, not an instant in some time zone.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.NUMERIC, Number);
pg.types.setTypeParser(pg.types.builtins.DATE, (day) => day);

/** A connection, or a transaction on one: what repositories are given. */
export type Db = Knex;

export function connect(url: string, most = 10): Knex {
  return createKnex({ client: 'pg', connection: url, pool: { min: 0, max: most } });
}
