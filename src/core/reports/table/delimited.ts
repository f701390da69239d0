import Papa from 'papaparse';

/** A row of cells and the line it begins on (from 1). `raw` is its own text where that is not its cells joined. */
export type CellRow = {
  line: number;
  cells: string[];
  raw?: string | undefined;
  /** it was too long to be kept: only its beginning is in `raw` */
  isCut?: boolean;
};

/** A quoted cell may hold line breaks, but one longer than this was never closed. */
const LONGEST_ROW = 64 * 1024;
/** A line longer than this is passed over, with its beginning kept. */
const LONGEST_LINE = 256 * 1024;
const KEPT_OF_LONG = 500;

/**
 * Splits text into rows of cells (RFC 4180; any separator), as many at once as a chunk ends. Blank lines are passed over.
 * A quote that is never closed, or closed many lines later, would swallow good rows: such a row is read again with
 * its quotes taken as they stand. Memory is bounded, whatever the lines are like.
 * @param width number of cells a row should have, once known; used to see that a row swallowed others
 */
export async function* splitRows(
  chunks: AsyncIterable<string>,
  separator: string,
  width: () => number | undefined,
): AsyncGenerator<CellRow[]> {
  let buffer = '';
  let line = 1;
  let skipping = false; // within a line that is too long

  function drain(atEnd: boolean): CellRow[] {
    const rows: CellRow[] = [];
    const enter = (cells: string[], raw: string | undefined, lines: number) => {
      if (cells.length > 1 || cells[0]!.trim() !== '') rows.push({ line, cells, raw, isCut: false });
      line += lines;
    };
    for (;;) {
      const { at, swallowed } = parseWhole(buffer, separator, atEnd, width(), enter);
      buffer = buffer.slice(at);
      if (!swallowed && buffer.length <= LONGEST_ROW) return rows;
      const end = buffer.indexOf('\n');
      if (end < 0 && !atEnd) return rows; // one long line: see below
      const raw = end < 0 ? buffer : buffer.slice(0, end);
      if (raw !== '') enter(raw.split(separator), raw, 1);
      else line += 1;
      buffer = end < 0 ? '' : buffer.slice(end + 1);
      if (buffer === '') return rows;
    }
  }

  for await (const chunk of chunks) {
    let rest = chunk;
    if (skipping) {
      const end = rest.indexOf('\n');
      if (end < 0) continue;
      rest = rest.slice(end + 1);
      skipping = false;
      line += 1;
    }
    buffer += rest;
    if (rest.includes('\n')) yield drain(false);
    if (buffer.length > LONGEST_LINE && !buffer.includes('\n')) {
      yield [{ line, cells: [], raw: buffer.slice(0, KEPT_OF_LONG), isCut: true }];
      buffer = '';
      skipping = true;
    }
  }
  if (buffer !== '') yield drain(true);
}

type Enter = (cells: string[], raw: string | undefined, lines: number) => void;

/**
 * Parses whole rows from the start of a text, up to a row that swallowed others (its quotes were not meant so).
 * Lines without a quote go through the parser's fast way.
 * @returns how far it came
 */
function parseWhole(
  text: string,
  separator: string,
  atEnd: boolean,
  width: number | undefined,
  enter: Enter,
): { at: number; swallowed: boolean } {
  let at = 0;
  const last = atEnd ? text.length : text.lastIndexOf('\n') + 1;
  while (at < last) {
    const quote = text.indexOf('"', at);
    const plainEnd = quote < 0 || quote >= last ? last : text.lastIndexOf('\n', quote) + 1;
    if (plainEnd > at) {
      parsePlain(text.slice(at, plainEnd), separator, enter);
      at = plainEnd;
      continue;
    }
    const quoted = parseQuoted(text, at, separator, atEnd, width, enter);
    if (quoted.swallowed || quoted.at === at) return quoted;
    at = quoted.at;
  }
  return { at, swallowed: false };
}

function parsePlain(lines: string, separator: string, enter: Enter) {
  const text = lines.endsWith('\n') ? lines.slice(0, -1) : lines;
  // Papa.parse itself holds on to what it has read for longer than the collector likes: a fifth of the time.
  const parser = new Papa.Parser({ delimiter: separator, newline: '\n', fastMode: true });
  const { data } = parser.parse(text, 0, false) as Papa.ParseResult<string[]>;
  if (text === '') enter([''], undefined, 1);
  for (const cells of data) enter(cells, undefined, 1);
}

/** Rows from one with a quote on, up to the first line without one. */
function parseQuoted(
  text: string,
  start: number,
  separator: string,
  atEnd: boolean,
  width: number | undefined,
  enter: Enter,
): { at: number; swallowed: boolean } {
  let at = start;
  let swallowed = false;
  // Papa.parse itself holds on to what it has read for longer than the collector likes: a fifth of the time.
  const parser = new Papa.Parser({
    delimiter: separator,
    newline: '\n',
    step({ data, errors, meta }: { data: unknown; errors: unknown[]; meta: { cursor: number } }) {
      const cells = (data as string[][])[0] ?? [''];
      const end = start + meta.cursor;
      const raw = text.slice(at, text[end - 1] === '\n' ? end - 1 : end);
      const misquoted = errors.length > 0;
      swallowed =
        raw.includes('\n') &&
        (misquoted || (width !== undefined && hidesRows(raw, cells.length, separator, width)));
      if (swallowed) return parser.abort();
      enter(
        misquoted && cells.length !== width ? raw.split(separator) : cells,
        raw,
        1 + countLineBreaks(raw),
      );
      at = end;
      const quote = text.indexOf('"', at);
      const nextLine = text.indexOf('\n', at);
      if (quote < 0 || (nextLine >= 0 && nextLine < quote)) parser.abort();
    },
  });
  parser.parse(text.slice(start), 0, !atEnd);
  return { at, swallowed };
}

/** Whether a row of several lines has the wrong number of cells, or a line of it would be a row of its own. */
function hidesRows(raw: string, cells: number, separator: string, width: number): boolean {
  if (cells !== width) return true;
  return raw
    .split('\n')
    .slice(0, -1)
    .some((line) => line.split(separator).length >= width);
}

function countLineBreaks(text: string): number {
  let count = 0;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) count += 1;
  return count;
}

/** The cells of one line. @example splitLine('a;"b;c"', ';') // ['a', 'b;c'] */
export function splitLine(line: string, separator: string): string[] {
  const { data, errors } = Papa.parse<string[]>(line, { delimiter: separator, newline: '\n' });
  return errors.length > 0 || data.length !== 1 ? line.split(separator) : data[0]!;
}
