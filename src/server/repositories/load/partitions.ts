import type { Knex } from 'knex';
import type { Db } from '../../db/connection';

/** Tables that have a partition for each account. */
type Partitioned = 'term' | 'term_day';

/** Where the rows of one account go, of a table that has a partition for each. */
export type Partition = {
  /** what is written into */
  table: string;
  /** the partition is new: nothing that reads the whole table sees it before it is finished */
  isNew: boolean;
  /** Builds the keys of a new partition and puts it into its table. Called once, after all is written. */
  finish(): Promise<void>;
};

/**
 * The partition of an account, made where its first load finds none. A new one has no key while it is filled, since building
 * one takes a quarter of the time that keeping one takes, and where the database keeps its log for itself alone (`wal_level`
 * minimal) its rows are written once instead of twice. The account must be locked.
 */
export async function openPartition(
  trx: Knex.Transaction,
  table: Partitioned,
  accountId: number,
): Promise<Partition> {
  if (await findPartition(trx, table, accountId))
    return { table, isNew: false, finish: () => Promise.resolve() };
  const name = nameOf(table, accountId);
  await trx.raw('create table ?? (like ?? including constraints)', [name, table]);
  return {
    ...{ table: name, isNew: true },
    async finish() {
      await trx.raw(
        `set local maintenance_work_mem = '256MB'; alter table ?? attach partition ?? for values in (${accountId})`,
        [table, name],
      );
    },
  };
}

/** The name of the table that holds an account's partition, null where nothing was loaded yet. */
export async function findPartition(db: Db, table: Partitioned, accountId: number): Promise<string | null> {
  const name = nameOf(table, accountId);
  const { rows } = await db.raw<{ rows: { found: string | null }[] }>('select to_regclass(?) as found', [
    name,
  ]);
  return rows[0]!.found === null ? null : name;
}

const nameOf = (table: Partitioned, accountId: number) => `${table}_${accountId}`;
