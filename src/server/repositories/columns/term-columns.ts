import { grown } from '@/core';
import type { Db } from '../../db/connection';
import { copyOut, type CopiedRow } from '../../db/copy-out';
import type { TermKind } from '../facts';
import { joined } from './joined';

/** A column of texts in UTF-8: text t is bytes[starts[t] .. starts[t + 1]). */
export type TextColumn = { starts: Uint32Array; bytes: Uint8Array };

/** Terms of an account as columns, ascending by id. */
export type AccountTerms = {
  count: number;
  ids: Int32Array;
  /** of each term its place in `TERM_KINDS` */
  kinds: Uint8Array;
  keys: TextColumn;
  raws: TextColumn;
};

/** So many ids of terms stand in a piece. Ids are given in order, so that a piece with newer ids behind it is whole. */
export const PIECE = 1 << 14;

export const TERM_KINDS: readonly TermKind[] = ['query', 'code', 'wordless', 'unreported'];
/** No two kinds begin with the same letter. */
const KIND_BY_LETTER = new Map(TERM_KINDS.map((kind, k) => [kind.charCodeAt(0), k]));

/**
 * Reads all terms of an account within a transaction: those that are packed as they are, the others row by row.
 * @throws the signal's reason when it is aborted
 */
export async function readTerms(trx: Db, accountId: number, signal?: AbortSignal): Promise<AccountTerms> {
  const terms = collectTerms();
  const next = await readPackedTerms(trx, accountId, terms.addAll, signal);
  await readRows(trx, accountId, { from: next }, terms.add, signal);
  return terms.finish();
}

/**
 * Reads the terms that are packed up to the first piece that is missing, within a transaction.
 * @returns the id from which on no term was read
 */
async function readPackedTerms(
  trx: Db,
  accountId: number,
  take: (terms: AccountTerms) => void,
  signal?: AbortSignal,
): Promise<number> {
  let next = 0;
  const query = trx('packed_terms')
    .where({ account_id: accountId })
    .orderBy('piece')
    .select('piece', 'columns');
  await copyOut(
    trx,
    query,
    (row) => {
      if (row.integer(0) !== next) return;
      take(termsIn(row.bytes(1)));
      next += 1;
    },
    signal,
  );
  return next * PIECE;
}

/** Reads the terms with ids from one to before another, row by row, within a transaction. */
export async function readTermsBetween(
  trx: Db,
  accountId: number,
  ids: { from: number; before: number },
): Promise<AccountTerms> {
  const terms = collectTerms();
  await readRows(trx, accountId, ids, terms.add);
  return terms.finish();
}

function readRows(
  trx: Db,
  accountId: number,
  { from, before }: { from: number; before?: number },
  take: (row: CopiedRow) => void,
  signal?: AbortSignal,
): Promise<void> {
  const query = trx('term')
    .where({ account_id: accountId })
    .where('term_id', '>=', from)
    .orderBy('term_id')
    .select('term_id', 'kind', 'key', 'raw');
  if (before !== undefined) void query.where('term_id', '<', before);
  return copyOut(trx, query, take, signal);
}

/** Gathers terms one after another, or as they were packed. */
function collectTerms() {
  let [ids, kinds] = [new Int32Array(1 << 12), new Uint8Array(1 << 12)];
  const [keys, raws] = [textColumn(), textColumn()];
  let count = 0;

  function makeRoom(more: number) {
    if (count + more <= ids.length) return;
    [ids, kinds] = [grown(ids, 2 * (count + more)), grown(kinds, 2 * (count + more))];
  }

  return {
    add(row: CopiedRow) {
      makeRoom(1);
      ids[count] = row.integer(0);
      kinds[count] = KIND_BY_LETTER.get(row.bytes(1)[0]!)!;
      keys.add(row, 2);
      raws.add(row, 3);
      count += 1;
    },
    addAll(more: AccountTerms) {
      makeRoom(more.count);
      ids.set(more.ids, count);
      kinds.set(more.kinds, count);
      keys.addAll(more.keys);
      raws.addAll(more.raws);
      count += more.count;
    },
    finish: (): AccountTerms => ({
      ...{ count, ids: ids.subarray(0, count), kinds: kinds.subarray(0, count) },
      ...{ keys: keys.finish(), raws: raws.finish() },
    }),
  };
}

/** Gathers texts one after another, or many at once. */
function textColumn() {
  let starts = new Uint32Array(1 << 12);
  let bytes = new Uint8Array(1 << 16);
  let count = 0;

  function makeRoom(texts: number, length: number) {
    if (count + texts + 1 > starts.length) starts = grown(starts, 2 * (count + texts + 1));
    const end = starts[count]! + length;
    if (end > bytes.length) bytes = grown(bytes, 2 * end);
  }

  return {
    add(row: CopiedRow, cell: number) {
      const length = row.lengthOf(cell);
      makeRoom(1, length);
      row.copyTo(bytes, starts[count]!, cell);
      starts[count + 1] = starts[count]! + length;
      count += 1;
    },
    addAll(more: TextColumn) {
      const texts = more.starts.length - 1;
      makeRoom(texts, more.bytes.length);
      const from = starts[count]!;
      bytes.set(more.bytes, from);
      for (let t = 1; t <= texts; t++) starts[count + t] = from + more.starts[t]!;
      count += texts;
    },
    finish: (): TextColumn => ({
      starts: starts.subarray(0, count + 1),
      bytes: bytes.subarray(0, starts[count]),
    }),
  };
}

/** Terms in bytes: how many; their ids; where keys and raw texts begin; the kinds, the keys, the raw texts. */
export function termBytes({ count, ids, kinds, keys, raws }: AccountTerms): Buffer {
  return joined([Uint32Array.of(count), ids, keys.starts, raws.starts, kinds, keys.bytes, raws.bytes]);
}

function termsIn(bytes: Uint8Array): AccountTerms {
  const { buffer } = Uint8Array.from(bytes);
  const count = new Uint32Array(buffer, 0, 1)[0]!;
  const starts = (at: number) => new Uint32Array(buffer, at, count + 1);
  const [keyStarts, rawStarts] = [starts(4 + 4 * count), starts(8 + 8 * count)];
  const kinds = 12 + 12 * count;
  const keys = kinds + count;
  const text = (at: number, of: Uint32Array): TextColumn => ({
    starts: of,
    bytes: new Uint8Array(buffer, at, of[count]!),
  });
  return {
    ...{ count, ids: new Int32Array(buffer, 4, count), kinds: new Uint8Array(buffer, kinds, count) },
    ...{ keys: text(keys, keyStarts), raws: text(keys + keyStarts[count]!, rawStarts) },
  };
}
