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
  /** the UTF-8 of a text; or a bytea */
  bytes(cell: number): Uint8Array;
  /** how many bytes such a cell has */
  lengthOf(cell: number): number;
  /** Writes the bytes of such a cell into others, from a place on. */
  copyTo(target: Uint8Array, at: number, cell: number): void;
  /** a cell of type bigint; NaN for null */
  bigint(cell: number): number;
};

/** "PGCOPY\n\xff\r\n\0", flags, and the length of an extension that no server sends. */
const HEADER_BYTES = 19;

/**
 * Takes the rows of a query by the binary form of COPY (PostgreSQL documentation, COPY, “Binary Format”): no number is turned
 * into text and back, and no row becomes an object of the driver's. While it runs nothing else may run on the transaction.
 * @param query its cells are of a type that `CopiedRow` names
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
  /** what has come and was not taken yet stands in bytes[begin .. end) */
  let bytes = Buffer.alloc(1 << 16);
  let view = viewOf(bytes);
  let [begin, end] = [0, 0];
  let isBegun = false;
  let isEnded = false;
  const [starts, lengths]: [number[], number[]] = [[], []];
  const row: CopiedRow = {
    integer: (cell) => view.getInt32(starts[cell]!),
    double: (cell) => (lengths[cell] === -1 ? NaN : view.getFloat64(starts[cell]!)),
    bytes: (cell) => bytes.subarray(starts[cell]!, starts[cell]! + lengths[cell]!),
    lengthOf: (cell) => lengths[cell]!,
    copyTo: (target, at, cell) => void bytes.copy(target, at, starts[cell], starts[cell]! + lengths[cell]!),
    bigint(cell) {
      const at = starts[cell]!;
      return lengths[cell] === -1 ? NaN : view.getInt32(at) * 2 ** 32 + view.getUint32(at + 4);
    },
  };

  function keep(chunk: Buffer) {
    if (end + chunk.length > bytes.length) {
      const there = bytes.subarray(begin, end);
      const longest = there.length + chunk.length;
      if (longest > bytes.length) {
        bytes = Buffer.alloc(2 * longest);
        view = viewOf(bytes);
      }
      bytes.set(there);
      [begin, end] = [0, there.length];
    }
    bytes.set(chunk, end);
    end += chunk.length;
  }

  /** @returns where the row that begins at a byte ends; −1 while it is not whole */
  function findCells(at: number): number {
    if (at + 2 > end) return -1;
    const cells = view.getInt16(at);
    let next = at + 2;
    for (let cell = 0; cell < cells; cell++) {
      if (next + 4 > end) return -1;
      lengths[cell] = view.getInt32(next);
      starts[cell] = next + 4;
      next += 4 + Math.max(0, lengths[cell]!);
    }
    return next > end ? -1 : next;
  }

  return {
    isWhole: () => isEnded,
    read(chunk: Buffer) {
      keep(chunk);
      if (!isBegun && end >= HEADER_BYTES) [isBegun, begin] = [true, HEADER_BYTES];
      while (isBegun) {
        const next = findCells(begin);
        if (next === -1) break; // cut
        isEnded = view.getInt16(begin) === -1;
        if (isEnded) break; // the trailer
        take(row);
        begin = next;
      }
    },
  };
}

const viewOf = ({ buffer, byteOffset, byteLength }: Buffer) => new DataView(buffer, byteOffset, byteLength);
