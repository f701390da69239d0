import { LRUCache } from 'lru-cache';
import {
  buildTermTable,
  findRemainders,
  stemTexts,
  type Remainders,
  type StemmedTexts,
  type TermTable,
} from '@/core';
import type { Db } from '../../db/connection';
import { loadIdeas, type StoredIdea } from '../../repositories/research/ideas';
import type { ResearchSheet } from '../../repositories/research/sheets';
import { derivedByKey, derivedFrom } from '../derived';

/** The ideas of a sheet in memory, their texts coded once. Never changed after it is built. */
export type SheetContent = { ideas: readonly StoredIdea[]; texts: StemmedTexts };

/** Sheets whose ideas are kept; the least recently used goes first. */
const MOST_SHEETS = 8;

type Asked = { db: Db; accountId: number; sheetId: number };
const contentsOf = derivedFrom(
  (_: Db) =>
    new LRUCache<string, SheetContent, Asked>({
      max: MOST_SHEETS,
      async fetchMethod(_key, _stale, { context: { db, accountId, sheetId } }) {
        const ideas = await loadIdeas(db, accountId, sheetId);
        return { ideas, texts: stemTexts(ideas.map(({ key }) => key)) };
      },
    }),
);

/** The ideas of a sheet, read again only when ideas came. */
export async function contentOf(
  db: Db,
  accountId: number,
  { id: sheetId, ideasVersion }: Pick<ResearchSheet, 'id' | 'ideasVersion'>,
): Promise<SheetContent> {
  const key = `${accountId} ${sheetId} ${ideasVersion}`;
  return (await contentsOf(db).fetch(key, { context: { db, accountId, sheetId } }))!;
}

/** The texts of a sheet filed by their words, to ask which a negative stops; indexes are those of the ideas. */
export const ideaTableOf: (content: SheetContent) => TermTable = derivedFrom(({ ideas }: SheetContent) =>
  buildTermTable(ideas.map(({ key }) => key)),
);

type Cut = Pick<ResearchSheet, 'stems' | 'struck'>;

/** What is left of the ideas without the stems of the sheet, and what is struck out of it. */
export const remaindersOf: (content: SheetContent, cut: Cut) => Remainders = derivedByKey(
  ({ stems, struck }: Cut) => JSON.stringify([stems, struck]),
  ({ texts }: SheetContent, { stems, struck }: Cut) => findRemainders(texts, stems, struck),
  4,
);
