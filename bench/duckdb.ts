import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api';

/** A database in memory, as a peer. */
export async function openDuckDb(threads: number): Promise<DuckDBConnection> {
  const instance = await DuckDBInstance.create(':memory:', { threads: String(threads) });
  return instance.connect();
}

/** Fills a table; columns by name and type. */
export async function fill(
  connection: DuckDBConnection,
  table: string,
  columns: Record<string, 'VARCHAR' | 'INTEGER' | 'DOUBLE'>,
  rows: Iterable<readonly (string | number)[]>,
): Promise<void> {
  const named = Object.entries(columns).map(([name, type]) => `${name} ${type}`);
  await connection.run(`create table ${table} (${named.join(', ')})`);
  const types = Object.values(columns);
  const appender = await connection.createAppender(table);
  for (const row of rows) {
    row.forEach((value, i) => {
      if (types[i] === 'VARCHAR') appender.appendVarchar(String(value));
      else if (types[i] === 'INTEGER') appender.appendInteger(Number(value));
      else appender.appendDouble(Number(value));
    });
    appender.endRow();
  }
  appender.closeSync();
}

export async function ask(connection: DuckDBConnection, sql: string): Promise<(string | number)[][]> {
  const reader = await connection.runAndReadAll(sql);
  return reader
    .getRows()
    .map((row) => row.map((value) => (typeof value === 'bigint' ? Number(value) : value) as string | number));
}

/**
 * A text in the form in which ours compares it (rules 1.1), as SQL would bring it there: most texts are so already, which
 * is looked at first here as well.
 */
export function normalised(column: string): string {
  return `case when regexp_full_match(${column}, '[a-z0-9&]+( [a-z0-9&]+)*') then ${column}
    else trim(regexp_replace(lower(nfc_normalize(${column})), '[^\\p{L}\\p{M}\\p{Nd}&]+', ' ', 'g')) end`;
}
