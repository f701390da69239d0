import type { Knex } from 'knex';
import { PassThrough, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

export type CopyValue = string | number | null;

/** Rows on their way into a table by COPY. */
export type CopySink = {
  /** Waits while the database is behind. */
  write(rows: readonly (readonly CopyValue[])[]): Promise<void>;
  /** Ends the COPY. */
  finish(): Promise<void>;
  /** Ends it with a failure; the transaction is to be rolled back. */
  abort(reason: Error): Promise<void>;
};

/**
 * Opens a COPY into a table within a transaction; between opening and finishing nothing else may run on it.
 * @param columns in the order of the cells of a row
 */
export async function openCopy(
  trx: Knex.Transaction,
  table: string,
  columns: readonly string[],
): Promise<CopySink> {
  const client = (await trx.client.acquireConnection()) as PoolClient;
  const input = new PassThrough({ highWaterMark: 1 << 20 });
  const done = pipeline(input, client.query(copyFrom(`copy ${table} (${columns.join(', ')}) from stdin`)));
  done.catch(() => undefined); // whoever writes or finishes hears of it
  return {
    async write(rows) {
      const text = rows.map((row) => `${row.map(toCell).join('\t')}\n`).join('');
      if (!input.write(text)) await Promise.race([drained(input), done]);
    },
    async finish() {
      input.end();
      await done;
    },
    async abort(reason) {
      input.destroy(reason);
      await done.catch(() => undefined);
    },
  };
}

function drained(stream: Writable): Promise<void> {
  return new Promise((resolve) => stream.once('drain', resolve));
}

function toCell(value: CopyValue): string {
  if (value === null) return '\\N';
  return typeof value === 'number' ? String(value) : value.replace(/[\\\t\n\r]/g, (c) => ESCAPES[c]!);
}

const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
