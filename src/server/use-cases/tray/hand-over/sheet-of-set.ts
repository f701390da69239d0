import { describeChange, writeCsv } from '@/core';
import { findSet } from '../../../repositories/tray/change-sets';
import { loadChangesOf, type StoredChange } from '../../../repositories/tray/changes';
import { writeWorkbook } from '../../../files/write-workbook';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { workOf } from '../kinds';
import { SHEET_HEADER, type SheetCells } from '../kinds/sheet-cells';

/**
 * A tray that was given out as a sheet, a change a row: what is to be done and where, by the names that the platform
 * shows, so that somebody without Gate Post can carry it out.
 * @throws Refusal when there is no such tray
 */
export async function sheetOfSet(
  deps: Deps,
  slug: string,
  setId: number,
  kind: 'csv' | 'xlsx',
): Promise<{ name: string; type: string; content: string | Uint8Array<ArrayBuffer> }> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const set = await findSet(deps.db, open.account.id, setId);
  if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
  const changes = await loadChangesOf(deps.db, open.account.id, setId);
  const rows = changes.map((stored) => toRow(open, stored));
  const day = (set.sentAt ?? '').slice(0, 10);
  const name = `${open.account.slug} ${day} tray ${setId}.${kind}`;
  if (kind === 'csv')
    return { name, type: 'text/csv; charset=utf-8', content: writeCsv([...SHEET_HEADER], rows) };
  const content = await writeWorkbook([{ name: `tray ${setId}`, header: SHEET_HEADER, rows }]);
  return { name, type: XLSX, content };
}

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

function toRow(open: Open, { change, why, draftedBy, state }: StoredChange): (string | null)[] {
  const { sheet } = workOf(change);
  const cells: SheetCells = {
    ...{ Do: sheet.task, ...sheet.cells(change, open) },
    ...{ 'In words': describeChange(change, open.names), Why: why, 'Put in by': draftedBy },
    State: state === 'drafted' ? 'to do' : state === 'said' ? 'said to be done' : state,
  };
  return SHEET_HEADER.map((column) => cells[column] ?? null);
}
