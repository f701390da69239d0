import { normalise, type IdeaRow } from '@/core';
import type { Db } from '../../db/connection';
import type { GivenIdea } from '../research/ideas';

/** Writes ideas; one of the same text gives way. @returns how many were new, and how many replaced others */
export async function writeIdeas(
  db: Db,
  accountId: number,
  reportFileId: number,
  ideas: readonly IdeaRow[],
): Promise<{ added: number; replaced: number }> {
  const byKey = new Map(ideas.map((idea) => [normalise(idea.text), idea]));
  byKey.delete('');
  const rows = [...byKey].map(([key, idea]) => ({
    account_id: accountId,
    report_file_id: reportFileId,
    key,
    text: idea.text,
    volume: idea.volume,
    volume_from: idea.volumeFrom,
    volume_to: idea.volumeTo,
    competition: idea.competition,
    low_bid_micros: idea.lowBidMicros,
    high_bid_micros: idea.highBidMicros,
  }));
  if (rows.length === 0) return { added: 0, replaced: 0 };
  const written: { is_new: boolean }[] = await db('idea')
    .insert(rows)
    .onConflict(['account_id', 'key'])
    .merge()
    .returning(db.raw('xmax = 0 as is_new'));
  const added = written.filter((row) => row.is_new).length;
  return { added, replaced: written.length - added };
}

export async function deleteIdeasOf(db: Db, accountId: number, reportFileId: number): Promise<number> {
  return db('idea').where({ account_id: accountId, report_file_id: reportFileId }).delete();
}

/** The ideas that a file brought, and that no later one replaced. */
export async function loadGivenByFile(db: Db, accountId: number, reportFileId: number): Promise<GivenIdea[]> {
  const rows = await db('idea')
    .where({ account_id: accountId, report_file_id: reportFileId })
    .orderBy('key')
    .select('key', 'volume', 'volume_from', 'volume_to', 'low_bid_micros');
  return rows.map((row) => ({
    ...{ key: row.key, volume: row.volume, volumeFrom: row.volume_from, volumeTo: row.volume_to },
    ...{ openingBidMicros: row.low_bid_micros, relatedness: null },
  }));
}
