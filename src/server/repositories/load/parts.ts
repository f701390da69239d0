import type { Knex } from 'knex';

/** Where the rows of one account go, of a table that has a part for each. */
export type Part = {
  /** what is written into */
  table: string;
  /** no row of the account was ever there; nothing that reads the whole table sees the part before it is finished */
  isNew: boolean;
  /** Builds the keys of a new part and puts it into its table. Called once, after all is written. */
  finish(): Promise<void>;
};

/**
 * The part of an account, made where its first load finds none. A new one has no key while it is filled, since building
 * one takes a quarter of the time that keeping one takes, and where the database keeps its log for itself alone (`wal_level`
 * minimal) its rows are written once instead of twice. The account must be locked.
 */
export async function openPart(
  trx: Knex.Transaction,
  table: 'term' | 'term_day',
  accountId: number,
): Promise<Part> {
  const name = `${table}_${accountId}`;
  const { rows } = await trx.raw<{ rows: { isThere: boolean }[] }>(
    `select to_regclass(?) is not null as "isThere"`,
    [name],
  );
  if (rows[0]!.isThere) return { table, isNew: false, finish: () => Promise.resolve() };
  await trx.raw('create table ?? (like ?? including constraints)', [name, table]);
  return {
    ...{ table: name, isNew: true },
    async finish() {
      await trx.raw(`set local maintenance_work_mem = '256MB'`);
      await trx.raw(`alter table ?? attach partition ?? for values in (${accountId})`, [table, name]);
    },
  };
}
