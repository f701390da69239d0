import Papa from 'papaparse';

/** A row of cells, the line it begins on (from 1) and its own text. */
export type CellRow = { line: number; cells: string[]; raw: string };

/** A quoted cell may hold line breaks, but one longer than this was never closed. */
const LONGEST_ROW = 64 * 1024;

/**
 * Splits text into rows of cells (RFC 4180; any separator), as many at once as a chunk ends. Blank lines are passed over.
 * A quote that is never closed, or closed many lines later, would swallow good rows: such a row is read again with
 * its quotes taken as they stand.
 * @param width number of cells a row should have, once known; used to see that a row swallowed others
 */
export async function* splitRows(
  chunks: AsyncIterable<string>,
  separator: string,
  width: () => number | undefined,
): AsyncGenerator<CellRow[]> {
  let buffer = '';
  let line = 1;

  function* drain(atEnd: boolean): Generator<CellRow> {
    for (;;) {
      const { rows, rest, swallowed } = parseWhole(buffer, separator, atEnd, width());
      for (const { cells, raw } of rows) {
        if (cells.length > 1 || cells[0]!.trim() !== '') yield { line, cells, raw };
        line += 1 + countLineBreaks(raw);
      }
      buffer = rest;
      if (!swallowed && buffer.length <= LONGEST_ROW) return;
      const end = buffer.indexOf('\n');
      if (end < 0 && !atEnd && !swallowed) return; // one long line; the reader sees to its length
      const raw = end < 0 ? buffer : buffer.slice(0, end);
      if (raw.trim() !== '') yield { line, cells: raw.split(separator), raw };
      line += 1;
      buffer = end < 0 ? '' : buffer.slice(end + 1);
      if (buffer === '') return;
    }
  }

  for await (const chunk of chunks) {
    buffer += chunk;
    if (buffer.includes('\n')) yield [...drain(false)];
  }
  if (buffer !== '') yield [...drain(true)];
}

/** Parses whole rows from the start of a text, up to a row that swallowed others (its quotes were not meant so). */
function parseWhole(text: string, separator: string, atEnd: boolean, width: number | undefined) {
  const rows: { cells: string[]; raw: string }[] = [];
  let at = 0;
  let swallowed = false;
  const parser = new Papa.Parser({
    delimiter: separator,
    newline: '\n',
    step({ data, errors, meta }: { data: unknown; errors: unknown[]; meta: { cursor: number } }) {
      const cells = (data as string[][])[0] ?? [''];
      const raw = text.slice(at, meta.cursor).replace(/\n$/, '');
      const misquoted = errors.length > 0;
      swallowed =
        raw.includes('\n') &&
        (misquoted || (width !== undefined && hidesRows(raw, cells.length, separator, width)));
      if (swallowed) return parser.abort();
      rows.push({ cells: misquoted && cells.length !== width ? raw.split(separator) : cells, raw });
      at = meta.cursor;
    },
  });
  parser.parse(text, 0, !atEnd);
  return { rows, rest: text.slice(at), swallowed };
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
