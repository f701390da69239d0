import { isKnown, roleOfHeader } from '../columns/headers';
import { splitRows, type CellRow } from './delimited';
import type { ReadDecisions } from '../reading';

/** Where the table of a file begins, and what stands above it. */
export type Layout = { separator: string | null; header: CellRow; above: CellRow[] };

export const SEPARATORS = [',', '\t', ';', '|'] as const;

/** A table of more columns is no report. */
export const MOST_COLUMNS = 1_000;

/** A line that names the search term plainly is a header, or one that names two other things. */
const LEAST_KNOWN = 1.5;

/** Lines above the header that a report may carry. */
const LONGEST_PREAMBLE = 30;

/**
 * Finds separator and header line together: the line that, split one way, holds most names that are known.
 * @param head the beginning of the file
 */
export async function findLayout(head: string, decisions: ReadDecisions): Promise<Layout | undefined> {
  let best: { layout: Layout; known: number } | undefined;
  if (decisions.headerLine === 0) return withoutHeader(head, decisions);
  for (const separator of decisions.separator === undefined ? SEPARATORS : [decisions.separator]) {
    const rows = await firstRows(head, separator, decisions.headerLine ?? 0);
    const found = findHeader(rows, decisions.headerLine);
    if (found && (!best || found.known > best.known))
      best = { layout: { separator, header: found.header, above: found.above }, known: found.known };
  }
  if (best) return best.layout;
  return decisions.headerLine ? undefined : withoutHeader(head, decisions);
}

/** Lines of a file that are looked at for how they come apart where none is a header. */
const LOOKED_AT = 40;

/** A file without a header is a table where most of its lines come apart alike; a person names its columns. */
async function withoutHeader(head: string, { separator: said }: ReadDecisions): Promise<Layout | undefined> {
  let best: { separator: string; width: number; alike: number } | undefined;
  for (const separator of said === undefined ? SEPARATORS : [said]) {
    const rows = (await firstRows(head, separator, LOOKED_AT)).filter(isFilled);
    const { width, alike } = commonWidth(rows);
    const isTable = width > 1 && alike * 2 > rows.length;
    if ((isTable || said !== undefined) && (!best || alike > best.alike || width > best.width))
      best = { separator, width, alike };
  }
  if (!best) return undefined;
  return { separator: best.separator, header: numberedHeader(best.width), above: [] };
}

const isFilled = ({ cells }: CellRow) => cells.some((cell) => cell.trim() !== '');

/** The width that most rows have, and how many have it. */
export function commonWidth(rows: readonly CellRow[]): { width: number; alike: number } {
  const times = new Map<number, number>();
  for (const { cells } of rows) times.set(cells.length, (times.get(cells.length) ?? 0) + 1);
  const [[width, alike] = [0, 0]] = [...times].sort((a, b) => b[1] - a[1] || b[0] - a[0]);
  return { width, alike };
}

/** What columns are called where no line names them. */
export function numberedHeader(width: number): CellRow {
  return { line: 0, cells: Array.from({ length: width }, (_, i) => `column ${i + 1}`) };
}

async function firstRows(head: string, separator: string, atLeast: number): Promise<CellRow[]> {
  const most = Math.max(LONGEST_PREAMBLE + 1, atLeast);
  const rows: CellRow[] = [];
  for await (const more of splitRows(once(head), separator, () => undefined)) {
    rows.push(...more.slice(0, most - rows.length));
    if (rows.length >= most) break;
  }
  return rows;
}

/**
 * The header among the first rows: the one on the line that a person named, or the one with most names.
 * @param line from 1
 */
export function findHeader(
  rows: readonly CellRow[],
  line?: number,
): { header: CellRow; above: CellRow[]; known: number } | undefined {
  let best: { at: number; known: number } | undefined;
  rows.slice(0, line === undefined ? LONGEST_PREAMBLE + 1 : undefined).forEach((row, at) => {
    if (line !== undefined && row.line !== line) return;
    const known = line === undefined ? countKnown(row.cells) : countKnown(row.cells) + row.cells.length;
    if ((known >= LEAST_KNOWN || line !== undefined) && known > (best?.known ?? 0)) best = { at, known };
  });
  if (!best) return undefined;
  return { header: rows[best.at]!, above: rows.slice(0, best.at), known: best.known };
}

/**
 * How many different things the cells name; a search term column counts most, one that is left out hardly. Figures
 * never do.
 */
function countKnown(cells: readonly string[]): number {
  const roles = new Set<string>();
  let sum = 0;
  for (const cell of cells.slice(0, MOST_COLUMNS)) {
    const meaning = /^[\s\d.,]*$/.test(cell) ? undefined : roleOfHeader(cell);
    if (!meaning || !isKnown(meaning)) continue;
    const { role, plainness } = meaning;
    if (role === null) sum += 0.1;
    else if (!roles.has(role)) sum += (role === 'search term' ? 1 : 0.5) + 0.5 * plainness;
    if (role !== null) roles.add(role);
  }
  return sum;
}

async function* once(text: string): AsyncGenerator<string> {
  yield text;
}
