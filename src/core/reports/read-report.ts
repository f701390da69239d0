import { FIGURE_NAMES, addFigures, noFigures } from '../figures';
import { SAID, understandColumns, type Understanding } from './columns/understand-columns';
import { spanOfDays } from './cells/days';
import type { CellRow } from './table/delimited';
import { createEvidence, gather } from './columns/evidence';
import { openTable, type Table } from './table/open-table';
import { SourceFault, toOpenSource, type ReportSource } from './table/source';
import type {
  AnyRow,
  ElementRow,
  FileError,
  IdeaRow,
  KeywordRow,
  Period,
  Reading,
  ReadOptions,
  RejectedRow,
  ReportRow,
} from './reading';
import { rowReader } from './rows/read-row';

const SAMPLE_ROWS = 2_000;
const BATCH = 2_000;
const PREVIEW = 20;
const KEPT_REJECTED = 10_000;

/**
 * Reads a report: finds encoding, separator, header, what the file is about, what each column is and how its cells are
 * written, and turns rows into typed rows, which go out in batches. Memory does not grow with the file.
 * Never guesses: what the file can not decide is a question, and with a question open no row goes out.
 * @param source bytes, a stream of bytes, or rows that come apart already; one that can be opened again is read twice
 * where only later rows decide how the first are to be read
 * @returns the reading; `error` says why nothing could be read. Throws only what `onRows` or the signal throws.
 */
export async function readReport(source: ReportSource, options: ReadOptions = {}): Promise<Reading> {
  try {
    return await readWhole(source, options);
  } catch (error) {
    if (error instanceof SourceFault) return { ...nothingRead(), error: error.error };
    throw error;
  }
}

async function readWhole(source: ReportSource, options: ReadOptions): Promise<Reading> {
  const table = await openTable(toOpenSource(source), options);
  if ('error' in table) return { ...nothingRead(), encoding: table.encoding, error: table.error };
  const { how, rows } = await understand(table, options);
  const reading: Reading = {
    ...nothingRead(),
    ...{ kind: how.kind, headerLine: table.header.line, separator: table.separator },
    ...{ columns: how.columns, questions: how.questions, currency: how.currency },
    dayOrder: how.isOrdered ? how.dayOrder : null,
    error: errorOf(how, table.header.line === 0),
  };
  if (reading.error === null) await readRows(rows, { table, how }, options, reading);
  return { ...reading, encoding: table.encoding() };
}

/** Looks at as many rows as it takes to know how to read them. @returns all rows, from the first on */
async function understand(
  table: Table,
  options: ReadOptions,
): Promise<{ how: Understanding; rows: AsyncIterable<readonly CellRow[]> }> {
  const { cells: headers } = table.header;
  const evidence = createEvidence(headers.length);
  const suggested = periodAbove(table.above);
  const rows = table.rows()[Symbol.asyncIterator]();
  const sample: CellRow[] = [];
  let isAll = false;
  while (sample.length < SAMPLE_ROWS && !isAll) {
    const next = await rows.next();
    if (next.done) isAll = true;
    else for (const row of next.value) sample.push(row);
  }
  gather(evidence, cellsOf(sample));
  const understood = () => {
    const found = understandColumns(headers, evidence, options, suggested);
    found.questions.unshift(...table.questions);
    return found;
  };
  let how = understood();
  if (!isUndecided(how) || isAll || !table.again || options.mostRows !== undefined)
    return { how, rows: resumed(sample, rows) };
  for (let next = await rows.next(); !next.done; next = await rows.next()) {
    options.signal?.throwIfAborted();
    gather(evidence, cellsOf(next.value));
  }
  how = understood();
  return { how, rows: table.rows() };
}

const cellsOf = (rows: readonly CellRow[]) => rows.map((row) => row.cells);

/** A question about how cells are to be read; the days of a file without a day column change no figure. */
function isUndecided({ questions }: Understanding): boolean {
  return questions.some(({ code }) => code === 'day order' || code === 'decimal mark');
}

function periodAbove(above: readonly CellRow[]): Period | null {
  for (const { cells } of above) {
    const span = spanOfDays(cells.join(' ').trim()) ?? cells.map((cell) => spanOfDays(cell)).find(Boolean);
    if (span) return span;
  }
  return null;
}

const NAME_THEM =
  'No line names columns that are known (search term, clicks, cost …). Say below what each column is, or which line is the header.';

function errorOf(how: Understanding, isWithoutHeader: boolean): FileError | null {
  if (isWithoutHeader && how.columns.every(({ because }) => !because.startsWith(SAID)))
    return { category: 'no header', message: NAME_THEM };
  if (how.kind === 'search terms' && how.at['search term'] === undefined) {
    return {
      category: 'no search term column',
      message: 'No column is named as the search term. Say which column holds it, or bring another report.',
    };
  }
  const undecided = how.questions.find((question) => question.code !== 'period');
  return undecided ? { category: 'undecided', message: undecided.text } : null;
}

async function readRows(
  rows: AsyncIterable<readonly CellRow[]>,
  { table, how }: { table: Table; how: Understanding },
  options: ReadOptions,
  reading: Reading,
) {
  const out = openBatches(how, options);
  const read = rowReader(
    { header: table.header.cells, separator: table.separator, isPadded: table.isPadded },
    how,
    reading.bounds,
  );
  for await (const sources of rows) {
    for (const source of sources) {
      if (isBlank(source)) continue; // of a sheet that was saved with its empty rows
      const outcome = read(source);
      if ('row' in outcome) {
        enter(reading, outcome.row);
        out.rows.push(outcome.row);
      } else {
        if (outcome.rejected.category !== 'total row') reading.rejectedCount += 1;
        if (reading.rejected.length < KEPT_REJECTED) reading.rejected.push(outcome.rejected);
        out.rejected.push(outcome.rejected);
      }
      if (out.rows.length + out.rejected.length >= BATCH) await out.flush();
    }
    reading.isPartial = reading.rows + reading.rejectedCount >= (options.mostRows ?? Infinity);
    if (reading.isPartial) break;
  }
  await out.flush();
  if (how.period && reading.rows > 0 && how.at.day === undefined) reading.days = how.period;
  for (const name of FIGURE_NAMES) {
    const sum = reading.sums[name];
    if (sum !== null) reading.sums[name] = Math.round(sum * 1e6) / 1e6; // decimals of the source, not of addition
  }
}

function isBlank({ cells, isCut }: CellRow): boolean {
  return !isCut && cells.every((cell) => cell === '' || cell.trim() === '');
}

function openBatches(how: Understanding, options: ReadOptions) {
  const isOpen = how.questions.length > 0;
  const batches = {
    rows: [] as AnyRow[],
    rejected: [] as RejectedRow[],
    async flush() {
      options.signal?.throwIfAborted();
      const { rows, rejected } = batches;
      [batches.rows, batches.rejected] = [[], []];
      if (rows.length > 0 && !isOpen) await send(how, rows, options);
      if (rejected.length > 0) await options.onRejected?.(rejected);
    },
  };
  return batches;
}

/** The rows of a file are all of its kind. */
async function send({ kind }: Understanding, rows: AnyRow[], options: ReadOptions) {
  switch (kind) {
    case 'search terms':
      return options.onRows?.(rows as ReportRow[]);
    case 'keywords':
      return options.onKeywords?.(rows as KeywordRow[]);
    case 'keyword ideas':
      return options.onIdeas?.(rows as IdeaRow[]);
    case 'structure':
      return options.onElements?.(rows as ElementRow[]);
  }
}

function enter(reading: Reading, row: AnyRow) {
  reading.rows += 1;
  if (reading.preview.length < PREVIEW) reading.preview.push(row);
  if (!('clicks' in row)) return;
  addFigures(reading.sums, row);
  if (row.day === '') return;
  reading.rowsByDay[row.day] = (reading.rowsByDay[row.day] ?? 0) + 1;
  const days = reading.days;
  if (!days) reading.days = { from: row.day, to: row.day };
  else if (row.day < days.from) days.from = row.day;
  else if (row.day > days.to) days.to = row.day;
}

/** A reading of nothing: what is known of a file that could not be read. @example nothingRead().rows // 0 */
export function nothingRead(): Reading {
  return {
    kind: 'search terms',
    ...{ encoding: null, separator: null, headerLine: null, dayOrder: null, currency: null },
    ...{ columns: [], days: null, rows: 0, sums: noFigures(), bounds: {} },
    ...{ rejected: [], rejectedCount: 0, preview: [], questions: [], error: null },
    ...{ rowsByDay: {}, isPartial: false },
  };
}

async function* resumed(
  sample: readonly CellRow[],
  rest: AsyncIterator<readonly CellRow[]>,
): AsyncGenerator<readonly CellRow[]> {
  yield sample;
  yield* { [Symbol.asyncIterator]: () => rest };
}
