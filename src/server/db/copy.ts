import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

export type CopyValue = string | number | null;

/**
 * Writes rows into a table by COPY. While it runs nothing else may run on the transaction.
 * @param columns in the order of the cells of a row
 */
export async function copyRows(
  trx: Knex.Transaction,
  table: string,
  columns: readonly string[],
  rows: Iterable<readonly CopyValue[]>,
): Promise<void> {
  await send(trx, `copy ${table} (${columns.join(', ')}) from stdin`, inText(rows));
}

/** A column of numbers, rows counted from 0; NaN is null. */
export type NumberColumn = {
  name: string;
  /** a date is counted in days since 1 January 2000 */
  type: 'integer' | 'bigint' | 'double' | 'date';
  valueOf: (row: number) => number;
};

/**
 * The same for columns of numbers, by the binary form of COPY (PostgreSQL documentation, COPY, “Binary Format”): nothing
 * is turned into text and back.
 */
export async function copyColumns(
  trx: Knex.Transaction,
  table: string,
  columns: readonly NumberColumn[],
  rows: number,
): Promise<void> {
  const names = columns.map(({ name }) => name).join(', ');
  await send(trx, `copy ${table} (${names}) from stdin (format binary)`, inBinary(columns, rows));
}

/** The pieces go out as fast as the database takes them. */
async function send(trx: Knex.Transaction, command: string, pieces: Iterable<string | Buffer>) {
  const client = (await trx.client.acquireConnection()) as PoolClient;
  await pipeline(
    Readable.from(pieces, { objectMode: true, highWaterMark: 2 }),
    client.query(copyFrom(command)),
  );
}

const BATCH = 8_192; // rows in a piece

function* inText(rows: Iterable<readonly CopyValue[]>): Generator<string> {
  let lines: string[] = [];
  for (const row of rows) {
    lines.push(`${row.map(toCell).join('\t')}\n`);
    if (lines.length < BATCH) continue;
    yield lines.join('');
    lines = [];
  }
  yield lines.join('');
}

function toCell(value: CopyValue): string {
  if (value === null) return '\\N';
  return typeof value === 'number' ? String(value) : value.replace(/[\\\t\n\r]/g, (c) => ESCAPES[c]!);
}

const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };

/** "PGCOPY\n\xff\r\n\0", then neither flags nor an extension. */
const HEADER = Buffer.from('5047434f50590aff0d0a000000000000000000', 'hex');
const TRAILER = Buffer.from('ffff', 'hex');
const WIDEST = 12; // bytes of a cell, its length among them

function* inBinary(columns: readonly NumberColumn[], rows: number): Generator<Buffer> {
  yield HEADER;
  for (let from = 0; from < rows; from += BATCH) yield encode(columns, from, Math.min(from + BATCH, rows));
  yield TRAILER;
}

function encode(columns: readonly NumberColumn[], from: number, to: number): Buffer {
  const bytes = Buffer.allocUnsafe((to - from) * (2 + WIDEST * columns.length));
  let at = 0;
  for (let row = from; row < to; row++) {
    at = bytes.writeInt16BE(columns.length, at);
    for (const { valueOf, type } of columns) {
      const value = valueOf(row);
      at = Number.isNaN(value) ? bytes.writeInt32BE(-1, at) : WRITERS[type](bytes, value, at);
    }
  }
  return bytes.subarray(0, at);
}

/** Each writes the length of a value and the value. @returns where the next cell begins */
const WRITERS: Record<NumberColumn['type'], (bytes: Buffer, value: number, at: number) => number> = {
  integer: writeInteger,
  date: writeInteger,
  bigint(bytes, value, at) {
    bytes.writeInt32BE(8, at);
    bytes.writeInt32BE(Math.floor(value / 2 ** 32), at + 4);
    return bytes.writeUInt32BE(value >>> 0, at + 8);
  },
  double(bytes, value, at) {
    bytes.writeInt32BE(8, at);
    return bytes.writeDoubleBE(value, at + 4);
  },
};

function writeInteger(bytes: Buffer, value: number, at: number): number {
  bytes.writeInt32BE(4, at);
  return bytes.writeInt32BE(value, at + 4);
}
