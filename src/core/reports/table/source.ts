import type { FileError } from '../reading';

/**
 * What a source throws when its file can not be read on: the reading ends with this error.
 * @example new SourceFault({ category: 'damaged', message: 'It is cut off.' }).message // 'It is cut off.'
 */
export class SourceFault extends Error {
  override name = 'SourceFault';
  constructor(readonly error: FileError) {
    super(error.message);
  }
}

/** A cell of a sheet, as the unpacker of a workbook gives it. */
export type Cell = string | number | Date | null;

/**
 * Where a report comes from: bytes, a stream of bytes, or rows that come apart already. What can be opened again is
 * read twice where its first rows can not decide how it is to be read.
 */
export type ReportSource =
  | Uint8Array
  | AsyncIterable<Uint8Array>
  | readonly (readonly Cell[])[]
  | { bytes: () => AsyncIterable<Uint8Array> }
  | { rows: () => AsyncIterable<readonly (readonly Cell[])[]> };

/** A source in one of two forms; `again` tells whether it can be opened more than once. */
export type OpenSource =
  | { form: 'bytes'; again: boolean; open: () => AsyncIterable<Uint8Array> }
  | { form: 'rows'; again: boolean; open: () => AsyncIterable<readonly (readonly Cell[])[]> };

const CHUNK = 128 * 1024;

export function toOpenSource(source: ReportSource): OpenSource {
  if (source instanceof Uint8Array) return { form: 'bytes', again: true, open: () => inChunks(source) };
  if (isRows(source)) return { form: 'rows', again: true, open: () => once(source) };
  if ('bytes' in source) return { form: 'bytes', again: true, open: source.bytes };
  if ('rows' in source) return { form: 'rows', again: true, open: source.rows };
  return { form: 'bytes', again: false, open: () => source };
}

function isRows(source: ReportSource): source is readonly (readonly Cell[])[] {
  return Array.isArray(source);
}

async function* inChunks(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += CHUNK) yield bytes.subarray(at, at + CHUNK);
}

async function* once<Value>(value: Value): AsyncGenerator<Value> {
  yield value;
}

/**
 * A cell as text that can be read only one way: a number with a decimal point and never three decimals, a day as
 * YYYY-MM-DD.
 * @example cellText(1.234) // '1.2340'
 */
export function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (typeof cell === 'string') return cell;
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? '' : cell.toISOString().slice(0, 10);
  const text = String(cell);
  return /^-?\d+\.\d{3}$/.test(text) ? `${text}0` : text;
}
