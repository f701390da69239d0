import JSZip from 'jszip';
import { describeChange, layRow, SAID_DONE, TO_DO, writeCsv, type SheetCells } from '@/core';
import { findSet } from '../../../repositories/tray/change-sets';
import { loadChangesOf, type StoredChange } from '../../../repositories/tray/changes';
import { writeWorkbook } from '../../../files/write-workbook';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { workOf } from '../kinds';
import { requireSheetRecipe } from './sheet-recipes';

type SheetKind = 'csv' | 'xlsx';
type Written = { name: string; type: string; content: string | Uint8Array<ArrayBuffer> };

/**
 * A tray that was given out as a sheet, a change a row: what is to be done and where, by the names that the platform
 * shows, so that somebody without Gate Post can carry it out. Columns, their headings, words and the rows of a file are
 * those of a recipe; more files than one come as an archive.
 * @throws Refusal when there is no such tray or recipe
 */
export async function sheetOfSet(
  deps: Deps,
  slug: string,
  setId: number,
  as: SheetKind,
  recipeId?: number,
): Promise<Written> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const set = await findSet(deps.db, open.account.id, setId);
  if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
  const recipe = await requireSheetRecipe(deps, open.account.id, recipeId);
  const changes = await loadChangesOf(deps.db, open.account.id, setId);
  const header = recipe.columns.map(({ heading }) => heading);
  const rows = changes.map((stored) => layRow(cellsOfChange(open, stored), recipe));
  const most = recipe.rowsPerFile ?? Math.max(rows.length, 1);
  const parts = Math.max(1, Math.ceil(rows.length / most));
  const base = `${open.account.slug} ${(set.sentAt ?? '').slice(0, 10)} tray ${setId}`;
  const files: Written[] = [];
  for (let part = 0; part < parts; part++) {
    const name = parts === 1 ? `${base}.${as}` : `${base} part ${part + 1} of ${parts}.${as}`;
    const some = rows.slice(part * most, (part + 1) * most);
    const content =
      as === 'csv'
        ? writeCsv(header, some)
        : await writeWorkbook([{ name: `tray ${setId}`, header, rows: some }]);
    files.push({ name, type: TYPES[as], content });
  }
  if (files.length === 1) return files[0]!;
  const archive = new JSZip();
  for (const { name, content } of files) archive.file(name, content);
  const bytes = await archive.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
  return { name: `${base}.zip`, type: 'application/zip', content: new Uint8Array(bytes) };
}

const TYPES: Record<SheetKind, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};

/** The first rows of the sheet of a tray, to see what a recipe makes of them. @throws Refusal when there is no such tray */
export async function firstRowsOf(deps: Deps, slug: string, setId: number): Promise<{ rows: SheetCells[] }> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const changes = await loadChangesOf(deps.db, open.account.id, setId);
  if (changes.length === 0) throw new Refusal('This tray is not there any more.', 404);
  return { rows: changes.slice(0, 3).map((stored) => cellsOfChange(open, stored)) };
}

/** A change as a row of a sheet, with every column that a sheet can have. */
export function cellsOfChange(open: Open, { id, change, why, draftedBy, state }: StoredChange): SheetCells {
  const { sheet } = workOf(change);
  return {
    ...{ Change: String(id), Do: sheet.task, Status: sheet.status, ...sheet.cells(change, open) },
    ...{ 'In words': describeChange(change, open.names), Why: why, 'Put in by': draftedBy },
    State: state === 'drafted' ? TO_DO : state === 'said' ? SAID_DONE : state,
  };
}
