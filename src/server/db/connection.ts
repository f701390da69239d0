import createKnex, { type Knex } from 'knex';
import pg from 'pg';

// Micro-units and counts stay far below 2^53; a day is a day, not an instant in some time zone.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.NUMERIC, Number);
pg.types.setTypeParser(pg.types.builtins.DATE, (day) => day);

/** A connection, or a transaction on one: what repositories are given. */
export type Db = Knex;

/**
 * @param most connections at a time
 * @param now what the database takes for now, where it is not now
 */
export function connect(url: string, most = 10, now?: Date): Knex {
  const setClock = (connection: pg.Client, done: (error: unknown, connection: pg.Client) => void) =>
    connection.query(`select set_config('gatepost.now', $1, false)`, [now!.toISOString()], (error) =>
      done(error, connection),
    );
  const pool = { min: 0, max: most, ...(now && { afterCreate: setClock }) };
  return createKnex({ client: 'pg', connection: url, pool });
}

/** The time by the clock of the database. */
export const clockNow = (db: Db): Knex.Raw => db.raw('clock_now()');
