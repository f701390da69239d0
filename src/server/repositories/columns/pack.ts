import type { Db } from '../../db/connection';
import { listDaysThere } from '../facts';
import { factBytes, readFactsOfDay } from './fact-columns';
import { PIECE, readTermsBetween, termBytes } from './term-columns';

/** Days, and numbers of pieces of terms, that could be packed and are not. */
export async function listUnpacked(db: Db, accountId: number): Promise<{ days: string[]; pieces: number[] }> {
  const isPacked = new Set(await db('packed_day').where({ account_id: accountId }).pluck<string[]>('day'));
  const newest: { id: number | null } = await db('term')
    .where({ account_id: accountId })
    .first(db.raw('max(term_id) as id'));
  const known = new Set(await db('packed_terms').where({ account_id: accountId }).pluck<number[]>('piece'));
  const whole = Math.floor((newest.id ?? 0) / PIECE);
  return {
    days: (await listDaysThere(db, accountId)).filter((day) => !isPacked.has(day)),
    pieces: Array.from({ length: whole }, (_, piece) => piece).filter((piece) => !known.has(piece)),
  };
}

/** Packs a day. The account must be locked, so that no load changes it meanwhile. */
export async function packDay(trx: Db, accountId: number, day: string): Promise<void> {
  const facts = await readFactsOfDay(trx, accountId, day);
  await trx('packed_day')
    .insert({ account_id: accountId, day, columns: factBytes(facts) })
    .onConflict(['account_id', 'day'])
    .merge();
}

/** Packs a piece of the terms. The account must be locked. */
export async function packTerms(trx: Db, accountId: number, piece: number): Promise<void> {
  const terms = await readTermsBetween(trx, accountId, { from: piece * PIECE, before: (piece + 1) * PIECE });
  await trx('packed_terms')
    .insert({ account_id: accountId, piece, columns: termBytes(terms) })
    .onConflict(['account_id', 'piece'])
    .merge();
}
