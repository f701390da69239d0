import { proposeStems } from '@/core';
import type { SheetView } from '@/contracts/research';
import { EMPTY_WORDS } from '../../compute/research/empty-words';
import { contentOf } from '../../compute/research/sheet-content';
import { findSheet } from '../../repositories/research/sheets';
import { listSources } from '../../repositories/research/sources';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** A sheet, where its ideas came from, and the words that it is about besides its stems. @throws Refusal when there is none */
export async function viewSheet(deps: Deps, slug: string, sheetId: number): Promise<SheetView> {
  const { id } = await requireAccount(deps, slug);
  const sheet = await findSheet(deps.db, id, sheetId);
  if (!sheet) throw new Refusal('There is no such research sheet.', 404);
  const { texts } = await contentOf(deps.db, id, sheet);
  return {
    sheet,
    sources: await listSources(deps.db, id, sheetId),
    proposed: proposeStems(texts, [...EMPTY_WORDS, ...sheet.stems.flatMap((stem) => stem.split(' '))]),
  };
}
