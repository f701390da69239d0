import { FIGURE_NAMES, addFigures, noFigures } from '../figures';
import { understandColumns, type Understanding } from './columns';
import { splitRows, type CellRow } from './delimited';
import { decodeText, sniffEncoding } from './encoding';
import { findHeader, findLayout } from './layout';
import type { FileError, Reading, ReadOptions, RejectedRow, ReportRow } from './reading';
import { readRow } from './rows';

export type ReportSource = Uint8Array | AsyncIterable<Uint8Array> | readonly (readonly string[])[];

const HEAD_BYTES = 256 * 1024;
const SAMPLE_ROWS = 2_000;
const BATCH = 2_000;
const PREVIEW = 20;
const KEPT_REJECTED = 10_000;

/**
 * Reads a search term report: finds encoding, separator, header, what each column is and how its cells are written,
 * and turns rows into typed rows, which go out in batches. Memory does not grow with the file.
 * Never guesses: what the file can not decide is a question, and with a question open no row goes out.
 * @param source bytes, a stream of bytes, or rows that come apart already
 * @returns the reading; `error` says why nothing could be read. Throws only what `onRows` or the signal throws.
 */
export async function readReport(source: ReportSource, options: ReadOptions = {}): Promise<Reading> {
  if (Array.isArray(source)) return readUnpacked(source as readonly (readonly string[])[], options);
  const chunks = toChunks(source as Uint8Array | AsyncIterable<Uint8Array>);
  const head = await takeHead(chunks);
  const sniffed = sniffEncoding(head);
  if (head.length === 0) return failed({ category: 'empty', message: 'The file is empty.' });
  if ('notText' in sniffed) {
    return failed({
      category: 'not a table',
      message: `This is ${sniffed.notText}, not a table of text. Give a CSV or TSV file.`,
    });
  }
  const { encoding } = sniffed;
  const headText = await decodeHead(head, encoding);
  if (headText.trim() === '')
    return failed({ category: 'empty', message: 'The file holds no text.' }, { encoding });

  const layout = await findLayout(headText);
  if (!layout) {
    return failed(
      {
        category: 'no header',
        message:
          'No line names columns that are known (search term, clicks, cost …). Add a header line to the file.',
      },
      { encoding },
    );
  }
  const width = layout.header.cells.length;
  const rows = splitRows(decodeText(chunksFrom(head, chunks), encoding), layout.separator, () => width);
  return readTable(rows, layout.header, { encoding, separator: layout.separator }, options);
}

async function readUnpacked(
  unpacked: readonly (readonly string[])[],
  options: ReadOptions,
): Promise<Reading> {
  const rows = unpacked.map((cells, i): CellRow => ({
    line: i + 1,
    cells: [...cells],
    raw: cells.join('\t'),
  }));
  if (rows.length === 0) return failed({ category: 'empty', message: 'There are no rows.' });
  const header = findHeader(rows);
  if (!header) return failed({ category: 'no header', message: 'No row names columns that are known.' });
  async function* all() {
    yield rows;
  }
  return readTable(all(), header, { encoding: null, separator: null }, options);
}

async function readTable(
  rows: AsyncGenerator<CellRow[]>,
  header: CellRow,
  form: { encoding: string | null; separator: string | null },
  options: ReadOptions,
): Promise<Reading> {
  const below = skipTo(rows, header.line);
  const sample: CellRow[] = [];
  for await (const more of below) {
    for (const row of more) sample.push(row);
    if (sample.length >= SAMPLE_ROWS) break;
  }

  const how = understandColumns(
    header.cells,
    sample.map((row) => row.cells),
    options,
  );
  const reading = {
    ...failed(null, form),
    headerLine: header.line,
    columns: how.columns,
    questions: how.questions,
  };
  if (how.at['search term'] === undefined) {
    reading.error = {
      category: 'no search term column',
      message: 'No column is named as the search term. Say which column holds it, or bring another report.',
    };
  } else if (how.questions.length > 0) {
    reading.error = { category: 'undecided', message: how.questions[0]!.text };
  } else {
    await readRows(resumed(sample, below), how, options, reading);
  }
  return reading;
}

async function readRows(
  rows: AsyncIterable<readonly CellRow[]>,
  how: Understanding,
  options: ReadOptions,
  reading: Reading,
) {
  let batch: ReportRow[] = [];
  let refused: RejectedRow[] = [];
  const flush = async () => {
    options.signal?.throwIfAborted();
    if (batch.length > 0) await options.onRows?.(batch);
    if (refused.length > 0) await options.onRejected?.(refused);
    batch = [];
    refused = [];
  };
  for await (const sources of rows) {
    for (const source of sources) {
      const outcome = readRow(source, how, options.day);
      if ('row' in outcome) {
        batch.push(outcome.row);
        enter(reading, outcome.row);
      } else {
        if (outcome.rejected.category !== 'total row') reading.rejectedCount += 1;
        if (reading.rejected.length < KEPT_REJECTED) reading.rejected.push(outcome.rejected);
        refused.push(outcome.rejected);
      }
      if (batch.length + refused.length >= BATCH) await flush();
    }
  }
  await flush();
  for (const name of FIGURE_NAMES) {
    const sum = reading.sums[name];
    if (sum !== null) reading.sums[name] = Math.round(sum * 1e6) / 1e6; // decimals of the source, not of addition
  }
}

function enter(reading: Reading, row: ReportRow) {
  reading.rows += 1;
  addFigures(reading.sums, row);
  if (reading.preview.length < PREVIEW) reading.preview.push(row);
  const days = reading.days;
  if (!days) reading.days = { from: row.day, to: row.day };
  else if (row.day < days.from) days.from = row.day;
  else if (row.day > days.to) days.to = row.day;
}

function failed(
  error: FileError | null,
  form: { encoding?: string | null; separator?: string | null } = {},
): Reading {
  return {
    kind: 'search terms',
    encoding: form.encoding ?? null,
    separator: form.separator ?? null,
    headerLine: null,
    columns: [],
    days: null,
    rows: 0,
    sums: noFigures(),
    rejected: [],
    rejectedCount: 0,
    preview: [],
    questions: [],
    error,
  };
}

async function* toChunks(source: Uint8Array | AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  if (!(source instanceof Uint8Array)) return yield* source;
  for (let at = 0; at < source.length; at += HEAD_BYTES) yield source.subarray(at, at + HEAD_BYTES);
}

/** The first bytes of a stream; what is left can still be taken from it. */
async function takeHead(chunks: AsyncGenerator<Uint8Array>): Promise<Uint8Array> {
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

async function* chunksFrom(head: Uint8Array, rest: AsyncGenerator<Uint8Array>): AsyncGenerator<Uint8Array> {
  yield head;
  yield* rest;
}

async function decodeHead(head: Uint8Array, encoding: Parameters<typeof decodeText>[1]): Promise<string> {
  let text = '';
  for await (const part of decodeText(chunksFrom(head, toChunks(new Uint8Array())), encoding)) text += part;
  return text;
}

/** Rows below a line, in a form that can be taken up again after a break. */
function skipTo(rows: AsyncGenerator<CellRow[]>, line: number): AsyncIterable<CellRow[]> {
  const iterator: AsyncIterator<CellRow[]> = {
    async next() {
      const next = await rows.next();
      return next.done ? next : { ...next, value: next.value.filter((row) => row.line > line) };
    },
  };
  return { [Symbol.asyncIterator]: () => iterator };
}

async function* resumed(
  sample: readonly CellRow[],
  rest: AsyncIterable<readonly CellRow[]>,
): AsyncGenerator<readonly CellRow[]> {
  yield sample;
  yield* rest;
}
