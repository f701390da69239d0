import type ExcelJS from 'exceljs';
import { SourceFault, type Cell } from '@/core';
import { listEntries, readEntry } from './archive';
import { damaged } from './limits';
import { OrderedReader } from './ordered-reader';
import { checkWidth, sheetBounds } from './sheet-bounds';

const BATCH = 1_000;
/** Rows between two filled ones that are believed; a sheet may claim a row number of a million. */
const MOST_BLANK = 10_000;
/** All texts of a workbook are held in memory while it is read. */
const LARGEST_TEXTS = 512 * 1024 ** 2;

/** Whether a ZIP archive is an XLSX workbook. */
export async function isWorkbook(path: string): Promise<boolean> {
  return (await listEntries(path)).some(({ name }) => name === 'xl/workbook.xml');
}

/** Names of the sheets, in the order in which they are read. @throws SourceFault when the workbook can not be read */
export async function listSheets(path: string): Promise<string[]> {
  const names: string[] = [];
  await eachSheet(path, async (sheet) => {
    names.push(sheet.name);
    for await (const row of sheet) void row; // the reader goes on when a sheet is at its end
    return true;
  });
  return names;
}

/**
 * The rows of one sheet in batches, blank ones as empty rows, so that the n-th is row n of the sheet.
 * @param index from 0, in the order in which sheets are read
 * @throws SourceFault when the workbook can not be read
 */
export async function* readSheet(path: string, index: number): AsyncGenerator<Cell[][]> {
  await checkEntries(path);
  const reader = new OrderedReader(path);
  try {
    let at = 0;
    for await (const sheet of reader) {
      if (at++ === index) {
        yield* rowsOf(sheet);
        return;
      }
      for await (const row of sheet) void row;
    }
  } catch (error) {
    throw toFault(error);
  }
}

async function* rowsOf(sheet: AsyncIterable<ExcelJS.Row>): AsyncGenerator<Cell[][]> {
  let batch: Cell[][] = [];
  let line = 0;
  for await (const row of sheet) {
    if (row.number - line > MOST_BLANK) line = row.number - 1; // not worth counting
    for (; line < row.number - 1; line++) batch.push([]);
    batch.push(cellsOf(row));
    line = row.number;
    if (batch.length < BATCH) continue;
    yield batch;
    batch = [];
  }
  yield batch;
}

function cellsOf(row: ExcelJS.Row): Cell[] {
  const values = row.values as ExcelJS.CellValue[];
  checkWidth(row.number, values.length - 1);
  const cells: Cell[] = [];
  for (let i = 1; i < values.length; i++) cells.push(toCell(values[i]));
  return cells;
}

/** A cell as it is shown; a formula is what it came to when the workbook was saved. */
function toCell(value: ExcelJS.CellValue): Cell {
  if (value === null || value === undefined) return null;
  if (typeof value === 'string' || typeof value === 'number' || value instanceof Date) return value;
  if (typeof value === 'boolean') return String(value);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('result' in value || 'formula' in value || 'sharedFormula' in value)
    return toCell((value as { result?: ExcelJS.CellValue }).result ?? null);
  if ('text' in value) return toCell(value.text as ExcelJS.CellValue);
  return 'error' in value ? value.error : null;
}

type Sheet = AsyncIterable<ExcelJS.Row> & { name: string };

async function eachSheet(path: string, visit: (sheet: Sheet) => Promise<boolean>): Promise<void> {
  await checkEntries(path);
  try {
    for await (const sheet of new OrderedReader(path)) if (!(await visit(sheet as unknown as Sheet))) return;
  } catch (error) {
    throw toFault(error);
  }
}

/**
 * The reader of workbooks believes what an archive says of itself, and takes a cell of any length into memory; so each part is
 * unpacked once to see that it is so, and that its cells are none but a table's.
 */
async function checkEntries(path: string): Promise<void> {
  for (const { name, size } of await listEntries(path)) {
    if (!/\.xml$/.test(name)) continue;
    if (name === 'xl/sharedStrings.xml' && size > LARGEST_TEXTS)
      throw new SourceFault(damaged('The workbook holds more text than can be read.'));
    const take = sheetBounds();
    for await (const chunk of readEntry(path, name)) take(chunk);
  }
}

function toFault(error: unknown): unknown {
  if (error instanceof SourceFault) return error;
  const isOfSystem = error instanceof Error && 'syscall' in error;
  return isOfSystem ? error : new SourceFault(damaged('The workbook can not be read.'));
}
