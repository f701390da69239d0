import { daysBetween, FIGURE_NAMES, grown, shiftDay, type OnProgress } from '@/core';
import type { Db } from '../../db/connection';
import { copyOut, type CopiedRow } from '../../db/copy-out';
import { FIGURE_FIELDS } from '../figure-fields';
import { listDaysThere } from '../facts';
import { joined } from './joined';

/** Facts as columns, in whatever order. */
export type FactColumns = {
  count: number;
  /** days since 1970 */
  day: Int32Array;
  termId: Int32Array;
  adGroupId: Int32Array;
  keywordId: Int32Array;
  /** of fact f from `FIGURE_NAMES.length` · f on, in the order of the core; NaN where a figure is never given */
  figures: Float64Array;
};

/**
 * Reads facts within a transaction: days that are packed as they are, the others row by row.
 * @param within no other days are read; all unless given
 * @param onProgress in days
 * @throws the signal's reason when it is aborted
 */
export async function readFacts(
  trx: Db,
  accountId: number,
  within?: { from: string; to: string },
  signal?: AbortSignal,
  onProgress?: OnProgress,
): Promise<FactColumns> {
  const all = await listDaysThere(trx, accountId);
  const there = all.filter((day) => !within || (day >= within.from && day <= within.to));
  const facts = collectFacts();
  const packed = new Set<string>();
  const takeDay = (day: string, columns: FactColumns) => {
    packed.add(day);
    facts.addAll(columns);
    onProgress?.(packed.size, there.length);
  };
  await readPackedDays(trx, accountId, within, takeDay, signal);
  const days = there.filter((day) => !packed.has(day));
  if (days.length > 0) await readDays(trx, accountId, days, facts.add, signal);
  return facts.finish();
}

/** Reads the days that are packed, within a transaction. */
function readPackedDays(
  trx: Db,
  accountId: number,
  within: { from: string; to: string } | undefined,
  take: (day: string, facts: FactColumns) => void,
  signal?: AbortSignal,
): Promise<void> {
  const query = trx('packed_day').where({ account_id: accountId }).select('day', 'columns');
  if (within) void query.whereBetween('day', [within.from, within.to]);
  return copyOut(
    trx,
    query,
    (row) => {
      const day = shiftDay('2000-01-01', row.integer(0));
      take(day, factsIn(row.bytes(1), daysBetween('1970-01-01', day)));
    },
    signal,
  );
}

/** Reads the facts of one day, row by row, within a transaction. */
export async function readFactsOfDay(trx: Db, accountId: number, day: string): Promise<FactColumns> {
  const facts = collectFacts();
  await readDays(trx, accountId, [day], facts.add);
  return facts.finish();
}

/** @param take the cells are the day, the term, the ad group, the keyword, and the figures in the order of the core */
function readDays(
  trx: Db,
  accountId: number,
  days: readonly string[],
  take: (row: CopiedRow) => void,
  signal?: AbortSignal,
): Promise<void> {
  const query = trx('term_day')
    .where({ account_id: accountId })
    .whereRaw('day = any(cast(? as date[]))', [[...days]])
    .select('day', 'term_id', 'ad_group_id', 'keyword_id', ...FIGURE_FIELDS);
  return copyOut(trx, query, take, signal);
}

/** Gathers facts one after another, or as they were packed. */
function collectFacts() {
  const first = 1 << 12;
  let facts = emptyFacts(first);
  let count = 0;

  function makeRoom(more: number) {
    if (count + more <= facts.day.length) return;
    const room = 2 * (count + more);
    facts = {
      ...{ count, day: grown(facts.day, room), termId: grown(facts.termId, room) },
      ...{ adGroupId: grown(facts.adGroupId, room), keywordId: grown(facts.keywordId, room) },
      figures: grown(facts.figures, FIGURE_NAMES.length * room),
    };
  }

  return {
    add(row: CopiedRow) {
      makeRoom(1);
      facts.day[count] = row.integer(0) + DAY_2000;
      facts.termId[count] = row.integer(1);
      facts.adGroupId[count] = row.integer(2);
      facts.keywordId[count] = row.integer(3);
      // Written out: a million rows come this way.
      const at = FIGURE_NAMES.length * count++;
      facts.figures[at] = row.bigint(4);
      facts.figures[at + 1] = row.bigint(5);
      facts.figures[at + 2] = row.bigint(6);
      facts.figures[at + 3] = row.double(7);
      facts.figures[at + 4] = row.bigint(8);
    },
    addAll(more: FactColumns) {
      makeRoom(more.count);
      facts.day.set(more.day, count);
      facts.termId.set(more.termId, count);
      facts.adGroupId.set(more.adGroupId, count);
      facts.keywordId.set(more.keywordId, count);
      facts.figures.set(more.figures, FIGURE_NAMES.length * count);
      count += more.count;
    },
    finish: (): FactColumns => ({
      ...{ count, day: facts.day.subarray(0, count), termId: facts.termId.subarray(0, count) },
      ...{ adGroupId: facts.adGroupId.subarray(0, count), keywordId: facts.keywordId.subarray(0, count) },
      figures: facts.figures.subarray(0, FIGURE_NAMES.length * count),
    }),
  };
}

function emptyFacts(room: number): FactColumns {
  const [day, termId] = [new Int32Array(room), new Int32Array(room)];
  const [adGroupId, keywordId] = [new Int32Array(room), new Int32Array(room)];
  const figures = new Float64Array(FIGURE_NAMES.length * room);
  return { count: 0, day, termId, adGroupId, keywordId, figures };
}

/** Days from 1970 to 2000, from which the database counts. */
const DAY_2000 = 10_957;

/** A day in bytes: the figures, then the ids of terms, of ad groups, of keywords; numbers as this machine holds them. */
export function factBytes({ termId, adGroupId, keywordId, figures }: FactColumns): Buffer {
  return joined([figures, termId, adGroupId, keywordId]);
}

function factsIn(bytes: Uint8Array, day: number): FactColumns {
  const buffer = Uint8Array.from(bytes).buffer;
  const figureBytes = 8 * FIGURE_NAMES.length;
  const count = bytes.length / (figureBytes + 12);
  const ids = (column: number) => new Int32Array(buffer, count * (figureBytes + 4 * column), count);
  return {
    ...{ count, day: new Int32Array(count).fill(day), termId: ids(0), adGroupId: ids(1), keywordId: ids(2) },
    figures: new Float64Array(buffer, 0, FIGURE_NAMES.length * count),
  };
}
