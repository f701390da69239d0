import { sum } from 'd3-array';
import type { Knex } from 'knex';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { daysBetween } from '@/core';

/** A column of a table, and its value in each row, counted from 0; NaN is null. */
export type CopyColumn =
  | {
      name: string;
      /** a date as `dayNumber` counts it */
      type: 'integer' | 'bigint' | 'double' | 'date';
      valueOf: (row: number) => number;
    }
  | { name: string; type: 'text'; valueOf: (row: number) => string | null };

/**
 * Writes rows into a table by the binary form of COPY (PostgreSQL documentation, COPY, “Binary Format”): numbers are not
 * turned into text and back, and no text needs to be escaped. While it runs nothing else may run on the transaction.
 */
export async function copyRows(
  trx: Knex.Transaction,
  table: string,
  columns: readonly CopyColumn[],
  rows: number,
): Promise<void> {
  const names = columns.map(({ name }) => name).join(', ');
  const client = (await trx.client.acquireConnection()) as PoolClient;
  // The pieces go out as fast as the database takes them.
  await pipeline(
    Readable.from(piecesOf(columns, rows), { objectMode: true, highWaterMark: 2 }),
    client.query(copyFrom(`copy ${table} (${names}) from stdin (format binary)`)),
  );
}

/** A day as a column of dates takes it. @param day YYYY-MM-DD @example dayNumber('2000-01-02') // 1 */
export function dayNumber(day: string): number {
  return daysBetween('2000-01-01', day);
}

/** "PGCOPY\n\xff\r\n\0", then neither flags nor an extension. */
const HEADER = Buffer.from('5047434f50590aff0d0a000000000000000000', 'hex');
const TRAILER = Buffer.from('ffff', 'hex');

const BATCH = 8_192; // rows in a piece

function* piecesOf(columns: readonly CopyColumn[], rows: number): Generator<Buffer> {
  yield HEADER;
  for (let from = 0; from < rows; from += BATCH) yield encode(columns, from, Math.min(from + BATCH, rows));
  yield TRAILER;
}

/** Bytes of a cell, its length among them: the most with a number in it, and what most texts take. */
const [NUMBER, USUAL_TEXT] = [12, 80];

function encode(columns: readonly CopyColumn[], from: number, to: number): Buffer {
  const widths = columns.map(({ type }) => (type === 'text' ? USUAL_TEXT : NUMBER));
  const piece = openPiece((to - from) * (2 + sum(widths)));
  for (let row = from; row < to; row++) {
    piece.beginRow(columns.length);
    for (const column of columns) {
      if (column.type === 'text') piece.addText(column.valueOf(row));
      else piece.addNumber(column.valueOf(row), column.type);
    }
  }
  return piece.bytes();
}

/** Bytes that are written one cell after another, each its length and its value. */
function openPiece(size: number) {
  let bytes = Buffer.allocUnsafeSlow(size);
  let view = new DataView(bytes.buffer);
  let at = 0;

  function makeRoom(more: number) {
    if (at + more <= bytes.length) return;
    bytes = Buffer.concat([bytes], 2 * (at + more));
    view = new DataView(bytes.buffer, bytes.byteOffset);
  }

  /** Plain letters one by one, since a call for each short text takes longer. @returns bytes written */
  function writeText(text: string, start: number): number {
    for (let i = 0; i < text.length; i++) {
      const char = text.charCodeAt(i);
      if (char > 127) return bytes.write(text, start);
      bytes[start + i] = char;
    }
    return text.length;
  }

  return {
    bytes: () => bytes.subarray(0, at),
    beginRow(cells: number) {
      makeRoom(2);
      view.setInt16(at, cells);
      at += 2;
    },
    addNumber(value: number, type: Exclude<CopyColumn['type'], 'text'>) {
      const isShort = type === 'integer' || type === 'date';
      const length = Number.isNaN(value) ? -1 : isShort ? 4 : 8;
      makeRoom(NUMBER);
      view.setInt32(at, length);
      at += 4;
      if (length < 0) return;
      if (isShort) view.setInt32(at, value);
      else if (type === 'double') view.setFloat64(at, value);
      else {
        view.setInt32(at, Math.floor(value / 2 ** 32));
        view.setUint32(at + 4, value);
      }
      at += length;
    },
    addText(value: string | null) {
      const most = 3 * (value?.length ?? 0); // bytes of UTF-8
      makeRoom(4 + most);
      const length = value === null ? -1 : writeText(value, at + 4);
      view.setInt32(at, length);
      at += 4 + Math.max(0, length);
    },
  };
}
