import { SourceFault } from '@/core';

/** A cell of a workbook holds at most 32,767 characters; written as XML, with its formatting, no cell takes more bytes. */
const LARGEST_CELL = 1024 * 1024;
/** Cells that stand in one row; no report has as many columns. */
const MOST_CELLS = 2_000;

/**
 * Looks through the XML of a sheet, or of a workbook's texts, before anything reads it into memory.
 * @returns takes the bytes of one part of the workbook, chunk by chunk
 * @throws SourceFault from what it returns, at a cell or a row that is larger than any report has
 */
export function sheetBounds(): (chunk: Uint8Array) => void {
  let before = '';
  let [row, cells, bytes] = [0, 0, 0];
  return (chunk) => {
    const text = before + Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength).toString('latin1');
    let from = before.length;
    for (const { 1: tag, index } of text.matchAll(/<(row|c|si)[ >]/g)) {
      bytes += Math.max(0, index - from);
      if (bytes > LARGEST_CELL) throw tooLarge(row);
      from = Math.max(from, index);
      bytes = 0;
      if (tag === 'row') [row, cells] = [row + 1, 0];
      if (tag === 'c' && ++cells > MOST_CELLS) throw tooMany(row);
    }
    bytes += text.length - from;
    if (bytes > LARGEST_CELL) throw tooLarge(row);
    before = /<(r|ro|row|c|s|si)?$/.exec(text)?.[0] ?? ''; // a tag may be cut in two
  };
}

/** Whether a row holds more cells than any report has columns: one of them may stand far to the right. */
export function checkWidth(row: number, cells: number): void {
  if (cells > MOST_CELLS) throw tooMany(row);
}

const tooMany = (row: number) =>
  fault(`Row ${row} of the workbook has more than ${MOST_CELLS.toLocaleString('en')} cells.`);
const tooLarge = (row: number) =>
  fault(
    row === 0
      ? 'A text in the workbook is longer than a cell can hold.'
      : `A cell in row ${row} of the workbook is longer than a cell can hold.`,
  );

function fault(what: string): SourceFault {
  return new SourceFault({
    category: 'damaged',
    message: `${what} It was not read. Save the table alone, as CSV, and bring that.`,
  });
}
