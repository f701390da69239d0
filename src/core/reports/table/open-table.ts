import { splitRows, type CellRow } from './delimited';
import { decodeText, ENCODINGS, sniffEncoding, type Encoding } from './encoding';
import { commonWidth, findHeader, findLayout, MOST_COLUMNS, numberedHeader, type Layout } from './layout';
import type { FileError, Question, ReadDecisions } from '../reading';
import { cellText, type OpenSource } from './source';

/** A file as a table: its header, what stands above it, and the rows below. */
export type Table = Layout & {
  /** what is to be asked before the text is read */
  questions: Question[];
  /** what the text was decoded from so far; null where rows came apart already */
  encoding(): string | null;
  /** rows of a sheet end with their last filled cell */
  isPadded: boolean;
  /** whether `rows` can be called more than once */
  again: boolean;
  rows(): AsyncIterable<CellRow[]>;
};

/** The part of a file in which encoding, separator and header are looked for. */
const HEAD_BYTES = 256 * 1024;

/** Finds the table of a file. @returns what is wrong where there is none, with the encoding as far as it is known */
export async function openTable(
  source: OpenSource,
  decisions: ReadDecisions,
): Promise<Table | { error: FileError; encoding: string | null }> {
  const table = await (source.form === 'bytes' ? openText(source, decisions) : openRows(source, decisions));
  if ('error' in table) return table;
  const { cells } = table.header;
  while (cells.length > 1 && cells.at(-1)!.trim() === '') cells.pop(); // lines that end with a separator
  if (cells.length <= MOST_COLUMNS) return table;
  const message = `The header holds ${table.header.cells.length.toLocaleString('en')} columns; up to ${MOST_COLUMNS.toLocaleString('en')} are read. This is no report.`;
  return { error: { category: 'not a table', message }, encoding: table.encoding() };
}

async function openText(
  source: Extract<OpenSource, { form: 'bytes' }>,
  decisions: ReadDecisions,
): Promise<Table | { error: FileError; encoding: string | null }> {
  const chunks = source.open()[Symbol.asyncIterator]();
  const head = await takeHead(chunks);
  const failed = (category: FileError['category'], message: string, encoding: string | null = null) => ({
    error: { category, message },
    encoding,
  });
  if (head.length === 0) return failed('empty', 'The file is empty.');
  const sniffed = sniffEncoding(head);
  if ('error' in sniffed) return { error: sniffed.error, encoding: null };
  let encoding = ENCODINGS.find((known) => known === decisions.encoding) ?? sniffed.encoding;
  const isSaid = decisions.encoding !== undefined;
  const questions = sniffed.isUnsure && !isSaid ? [askForEncoding(head)] : [];
  const decode = (bytes: AsyncIterable<Uint8Array>): AsyncIterable<string> =>
    decodeText(bytes, encoding, isSaid ? undefined : (other: Encoding) => (encoding = other));

  let text = '';
  for await (const part of decode(chunksFrom([head], undefined))) text += part;
  if (text.trim() === '') return failed('empty', 'The file holds no text.', encoding);
  const other = OTHER_TEXT.find(({ pattern }) => pattern.test(text.slice(0, 500)));
  if (other)
    return failed(
      'not a table',
      `This is ${other.what}, not a table. Give a CSV, TSV or XLSX file.`,
      encoding,
    );
  const layout = await findLayout(text, decisions);
  if (!layout) return failed('no header', NO_HEADER, encoding);
  const width = layout.header.cells.length;
  let isFirst = true;
  return {
    ...layout,
    ...{ encoding: () => encoding, isPadded: false, again: source.again, questions },
    rows() {
      const bytes = isFirst ? chunksFrom([head], chunks) : source.open();
      isFirst = false;
      return below(
        splitRows(decode(bytes), layout.separator!, () => width),
        layout.header.line,
      );
    },
  };
}

/** Shows the first place where the two encodings differ, read in both. */
function askForEncoding(head: Uint8Array): Question {
  const at = Math.max(
    0,
    head.findIndex((byte) => byte > 127),
  );
  const some = head.subarray(Math.max(0, at - 12), at + 16);
  const shown = (encoding: Encoding) =>
    new TextDecoder(encoding)
      .decode(some)
      .replace(/[\r\n]+/g, ' ')
      .trim();
  const text = `Some letters can be read two ways: as UTF-8 it says “${shown('utf-8')}”, as Windows-1252 “${shown('windows-1252')}”. Which is right? What can not be read then is refused, row by row.`;
  return { code: 'encoding', column: null, text, options: ['utf-8', 'windows-1252'] };
}

/** Text that is no table, by how it begins. */
const OTHER_TEXT = [
  { pattern: /^\s*<(!doctype|html|table|head|body|\?xml)/i, what: 'a web page or XML' },
  { pattern: /^\s*(\{|\[\s*[[{])\s*["\]}]/, what: 'JSON' },
  { pattern: /^\{\\rtf/, what: 'a text document' },
];

const NO_HEADER =
  'No line names columns that are known (search term, clicks, cost …). Add a header line to the file, or say which line it is.';

async function openRows(
  source: Extract<OpenSource, { form: 'rows' }>,
  decisions: ReadDecisions,
): Promise<Table | { error: FileError; encoding: null }> {
  let first: CellRow[] = [];
  for await (const rows of numbered(source.open())) {
    first.push(...rows);
    if (first.length >= 100) break;
  }
  first = first.slice(0, 100);
  if (first.length === 0)
    return { error: { category: 'empty', message: 'There are no rows.' }, encoding: null };
  const found = decisions.headerLine === 0 ? undefined : findHeader(first, decisions.headerLine);
  const { width } = commonWidth(first);
  if (!found && (decisions.headerLine || width < 2))
    return { error: { category: 'no header', message: NO_HEADER }, encoding: null };
  const { header, above } = found ?? { header: numberedHeader(width), above: [] };
  return {
    ...{ header, above, separator: null, encoding: () => null, isPadded: true, again: source.again },
    questions: [],
    rows: () => below(numbered(source.open()), header.line),
  };
}

/** Rows of a sheet with their numbers, from 1; empty ones are passed over. */
async function* numbered(
  batches: AsyncIterable<readonly (readonly Parameters<typeof cellText>[0][])[]>,
): AsyncGenerator<CellRow[]> {
  let line = 0;
  for await (const batch of batches) {
    const rows: CellRow[] = [];
    for (const row of batch) {
      line += 1;
      const cells = row.map(cellText);
      if (cells.some((cell) => cell.trim() !== '')) rows.push({ line, cells });
    }
    yield rows;
  }
}

async function* below(rows: AsyncIterable<CellRow[]>, line: number): AsyncGenerator<CellRow[]> {
  for await (const batch of rows) {
    yield batch.length > 0 && batch[0]!.line <= line ? batch.filter((row) => row.line > line) : batch;
  }
}

/** The first bytes of a stream; what is left can still be taken from it. */
async function takeHead(chunks: AsyncIterator<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  let size = 0;
  while (size < HEAD_BYTES) {
    const next = await chunks.next();
    if (next.done) break;
    parts.push(next.value);
    size += next.value.length;
  }
  const head = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    head.set(part, at);
    at += part.length;
  }
  return head;
}

async function* chunksFrom(
  first: readonly Uint8Array[],
  rest: AsyncIterator<Uint8Array> | undefined,
): AsyncGenerator<Uint8Array> {
  yield* first;
  if (rest) yield* { [Symbol.asyncIterator]: () => rest };
}
