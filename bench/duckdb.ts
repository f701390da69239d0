import { fork } from 'node:child_process';
import { once } from 'node:events';
import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api';

/** A database in memory, in a process of its own: neither its threads nor its memory are in our way. */
export type DuckDb = {
  /** Makes a table and fills it; columns by name and type. */
  fill(table: string, columns: Columns, rows: Iterable<Row>): Promise<void>;
  /** @param threads that it may use */
  ask(sql: string, threads: number): Promise<Row[]>;
};

type Columns = Record<string, 'VARCHAR' | 'INTEGER' | 'DOUBLE'>;
type Row = readonly (string | number)[];
type Request =
  { make: string } | { fill: string; columns: Columns; rows: Row[] } | { ask: string; threads: number };
type Answer = { rows: Row[] } | { error: string };

const BATCH = 20_000; // rows

/** The flag with which the benchmark's program serves as such a process. */
export const PEER_FLAG = '--duckdb';

export function openDuckDb(): DuckDb {
  const child = fork(process.argv[1]!, [PEER_FLAG], { serialization: 'advanced' });
  const request = async (of: Request): Promise<Row[]> => {
    const answered = once(child, 'message') as Promise<[Answer]>;
    child.send(of);
    const [answer] = await answered;
    if ('error' in answer) throw new Error(answer.error);
    return answer.rows;
  };
  return {
    async fill(table, columns, rows) {
      const named = Object.entries(columns).map(([name, type]) => `${name} ${type}`);
      await request({ make: `create table ${table} (${named.join(', ')})` });
      let batch: Row[] = [];
      for (const row of rows) {
        batch.push(row);
        if (batch.length < BATCH) continue;
        await request({ fill: table, columns, rows: batch });
        batch = [];
      }
      await request({ fill: table, columns, rows: batch });
    },
    ask: (sql, threads) => request({ ask: sql, threads }),
  };
}

/** What the process does: answers one request after another, until the one that asks ends. */
export function serveDuckDb(): void {
  const opened = open();
  process.on('disconnect', () => process.exit(0));
  process.on('message', (request: Request) => {
    const answer = async (): Promise<Row[]> => {
      const connection = await opened;
      if ('make' in request) await connection.run(request.make);
      else if ('fill' in request)
        await append(connection, request.fill, Object.values(request.columns), request.rows);
      else {
        await connection.run(`set threads to ${request.threads}`);
        return ask(connection, request.ask);
      }
      return [];
    };
    answer().then(
      (rows) => process.send!({ rows } satisfies Answer),
      (error: unknown) => process.send!({ error: String(error) } satisfies Answer),
    );
  });
}

async function open(): Promise<DuckDBConnection> {
  const instance = await DuckDBInstance.create(':memory:');
  return instance.connect();
}

async function append(connection: DuckDBConnection, table: string, types: string[], rows: readonly Row[]) {
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

async function ask(connection: DuckDBConnection, sql: string): Promise<Row[]> {
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
    else trim(regexp_replace(lower(nfc_normalize(${column})), '[^\\\\p{L}\\\\p{M}\\\\p{Nd}&]+', ' ', 'g')) end`;
}
