import { tellSaved } from './saved-files';
import { writeCsv } from '@/core';
import { nameOf, type Column, type Value } from './column';

/** A table as cells: the names of its columns, and its rows. */
export type Cells = { header: string[]; rows: Value[][] };
export type FileKind = 'csv' | 'xlsx';

/** The cells of rows in the columns that are shown. */
export function toCells<Row, Look>(
  columns: readonly Pick<Column<Row, Look>, 'name' | 'fullName' | 'value'>[],
  rows: readonly Row[],
): Cells {
  return { header: columns.map(nameOf), rows: rows.map((row) => columns.map(({ value }) => value(row))) };
}

/** Cells as a spreadsheet takes them from the clipboard: no text starts a formula or leaves its cell. */
export function toClipboard({ rows }: Cells): string {
  return rows.map((row) => row.map(asText).join('\t')).join('\n');
}

function asText(value: Value): string {
  if (value === null) return '';
  if (typeof value === 'number') return String(value);
  const flat = value.replaceAll(/[\t\r\n]+/g, ' ');
  return /^\s*[=+\-@|]/.test(flat) ? `'${flat}` : flat;
}

/** Saves cells as a file of this browser. @param name without its ending */
export async function saveCells(cells: Cells, name: string, kind: FileKind): Promise<void> {
  saveFile(kind === 'csv' ? toCsvFile(cells) : await toWorkbook(cells), `${name}.${kind}`);
}

const toCsvFile = ({ header, rows }: Cells) =>
  new Blob([writeCsv(header, rows)], { type: 'text/csv;charset=utf-8' });

/** The package is fetched when it is first needed. Texts are written as texts, so none starts a formula. */
async function toWorkbook({ header, rows }: Cells): Promise<Blob> {
  const { default: writeXlsxFile } = await import('write-excel-file/browser');
  const head = header.map((value) => ({ value, type: String, fontWeight: 'bold' as const }));
  return writeXlsxFile([head, ...rows.map((row) => row.map(toCell))], { stickyRowsCount: 1 }).toBlob();
}

function toCell(value: Value) {
  if (value === null) return null;
  return typeof value === 'number' ? { value, type: Number } : { value, type: String };
}

/** Offers bytes as a download, and tells that it was. */
export function saveFile(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  tellSaved(name);
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
