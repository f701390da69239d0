import type { Db } from './connection';

/** A key, a unique index or a foreign key of a table, with its columns in order. */
export type Key = {
  table: string;
  name: string;
  kind: 'unique' | 'foreign';
  columns: string[];
  /** of a foreign key: the table that it leads to */
  refersTo: string | null;
};

export type Catalogue = { tables: { name: string; columns: string[] }[]; keys: Key[] };

/** Tables that every machine holds whole: what they say belongs to no single account, or names the accounts. */
export const REFERENCE_TABLES: readonly string[] = ['account', 'person'];
/** Tables of the installation, which stay where the jobs are queued: how people sign in belongs to no account. */
const OWN_TABLES = /^(knex_|job_process$|sign_in)/;

/** The tables that hold what belongs to an account, and their keys; partitions are a part of their table. */
export async function readCatalogue(db: Db): Promise<Catalogue> {
  const tables = await db.raw<{ rows: Catalogue['tables'] }>(`
    select c.relname::text as name,
           (select array_agg(attname::text order by attnum) from pg_attribute
             where attrelid = c.oid and attnum > 0 and not attisdropped) as columns
      from pg_class c
     where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition
     order by 1`);
  const keys = await db.raw<{ rows: Key[] }>(`
    select t.relname::text as table, i.relname::text as name, 'unique' as kind,
           (select array_agg(a.attname::text order by k.at)
              from unnest(x.indkey) with ordinality as k (attnum, at)
              left join pg_attribute a on a.attrelid = t.oid and a.attnum = k.attnum) as columns,
           null as "refersTo"
      from pg_index x join pg_class t on t.oid = x.indrelid join pg_class i on i.oid = x.indexrelid
     where x.indisunique and t.relnamespace = 'public'::regnamespace and not t.relispartition
     union all
    select t.relname, f.conname, 'foreign',
           (select array_agg(a.attname::text order by k.at)
              from unnest(f.conkey) with ordinality as k (attnum, at)
              join pg_attribute a on a.attrelid = t.oid and a.attnum = k.attnum),
           other.relname
      from pg_constraint f join pg_class t on t.oid = f.conrelid join pg_class other on other.oid = f.confrelid
     where f.contype = 'f' and t.relnamespace = 'public'::regnamespace and not t.relispartition
     order by 1, 2`);
  const isOurs = (name: string) => !OWN_TABLES.test(name);
  return {
    tables: tables.rows.filter(({ name }) => isOurs(name)),
    keys: keys.rows.filter(({ table }) => isOurs(table)),
  };
}

/** What of a catalogue stands in the way of spreading its tables over machines by account; empty where nothing does. */
export function obstaclesToSharding({ tables, keys }: Catalogue): string[] {
  const isReference = (name: string) => REFERENCE_TABLES.includes(name);
  return [
    ...tables
      .filter(({ name, columns }) => !isReference(name) && columns[0] !== 'account_id')
      .map(({ name }) => `${name} does not begin with account_id`),
    ...keys
      .filter(({ table, columns }) => !isReference(table) && columns[0] !== 'account_id')
      .filter(({ kind, refersTo }) => kind === 'unique' || !isReference(refersTo ?? ''))
      .map(({ table, name }) => `${name} of ${table} does not lead with account_id`),
    ...keys
      .filter(({ table, refersTo }) => isReference(table) && refersTo !== null && !isReference(refersTo))
      .map(({ table, name, refersTo }) => `${name} leads from ${table} to ${refersTo}, which is spread`),
  ];
}

/**
 * The statements by which Citus, an extension of PostgreSQL, spreads the tables over machines: each account on one of them,
 * with all that belongs to it.
 */
export function shardingStatements({ tables }: Catalogue): string[] {
  const spread = tables.map(({ name }) => name).filter((name) => !REFERENCE_TABLES.includes(name));
  return [
    ...REFERENCE_TABLES.map((name) => `select create_reference_table('${name}');`),
    ...spread.map((name, i) =>
      i === 0
        ? `select create_distributed_table('${name}', 'account_id');`
        : `select create_distributed_table('${name}', 'account_id', colocate_with => '${spread[0]}');`,
    ),
  ];
}
