import type { Knex } from 'knex';
import type { PoolClient } from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import type { Db } from './connection';

/** The cells of a row, counted from 0. They are there until the next row is taken. */
export type CopiedRow = {
  /** a cell of type integer; or date, as `dayNumber` counts it */
  integer(cell: number): number;
  /** a cell of type double precision; NaN for null */
  double(cell: number): number;
  /** the UTF-8 of a text */
  bytes(cell: number): Uint8Array;
};

/** "PGCOPY\n\xff\r\n\0", flags, and the length of an extension that no server sends. */
const HEADER_BYTES = 19;

/**
 * Takes the rows of a query by the binary form of COPY (PostgreSQL documentation, COPY, “Binary Format”): no number is turned
 * into text and back, and no row becomes an object of the driver's. While it runs nothing else may run on the transaction.
 * @param query its cells are of type integer, double precision, date or text
 * @throws the signal's reason when it is aborted: what comes still is passed over, since a COPY can't be left in its middle
 */
export async function copyOut(
  trx: Db,
  query: Knex.QueryBuilder | Knex.Raw,
  take: (row: CopiedRow) => void,
  signal?: AbortSignal,
): Promise<void> {
  const client = (await (trx as Knex.Transaction).client.acquireConnection()) as PoolClient;
  const stream = client.query(copyTo(`copy (${query.toQuery()}) to stdout (format binary)`));
  const rows = rowsOf(take);
  let failure: unknown;
  await new Promise<void>((resolve, reject) => {
    stream.on('data', (chunk: Buffer) => {
      if (failure !== undefined) return;
      try {
        signal?.throwIfAborted();
        rows.read(chunk);
      } catch (error) {
        failure = error;
      }
    });
    stream.on('end', resolve);
    stream.on('error', reject);
  });
  if (failure !== undefined) throw failure as Error;
  if (!rows.isWhole()) throw new Error('the rows of a query broke off');
}

/** Takes bytes as they come, and gives out each row that is whole. */
function rowsOf(take: (row: CopiedRow) => void) {
  let rest: Buffer = Buffer.alloc(0);
  let isBegun = false;
  let isEnded = false;
  let bytes = rest;
  const [starts, lengths]: [number[], number[]] = [[], []];
  const row: CopiedRow = {
    integer: (cell) => bytes.readInt32BE(starts[cell]!),
    double: (cell) => (lengths[cell] === -1 ? NaN : bytes.readDoubleBE(starts[cell]!)),
    bytes: (cell) => bytes.subarray(starts[cell]!, starts[cell]! + lengths[cell]!),
  };

  /** @returns where the row that begins at a byte ends; −1 while it is not whole */
  function findCells(at: number): number {
    if (at + 2 > bytes.length) return -1;
    const cells = bytes.readInt16BE(at);
    let end = at + 2;
    for (let cell = 0; cell < cells; cell++) {
      if (end + 4 > bytes.length) return -1;
      lengths[cell] = bytes.readInt32BE(end);
      starts[cell] = end + 4;
      end += 4 + Math.max(0, lengths[cell]!);
    }
    return end > bytes.length ? -1 : end;
  }

  return {
    isWhole: () => isEnded,
    read(chunk: Buffer) {
      bytes = rest.length === 0 ? chunk : Buffer.concat([rest, chunk]);
      let at = 0;
      if (!isBegun && bytes.length >= HEADER_BYTES) [isBegun, at] = [true, HEADER_BYTES];
      while (isBegun) {
        const end = findCells(at);
        if (end === -1) break; // cut
        isEnded = bytes.readInt16BE(at) === -1;
        if (isEnded) break; // the trailer
        take(row);
        at = end;
      }
      rest = bytes.subarray(at);
    },
  };
}
