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
  for (const separator of decisions.separator === undefined ? SEPARATORS : [decisions.separator]) {
    const rows = await firstRows(head, separator, decisions.headerLine ?? 0);
    const found = findHeader(rows, decisions.headerLine);
    if (found && (!best || found.known > best.known))
      best = { layout: { separator, header: found.header, above: found.above }, known: found.known };
  }
  return best?.layout;
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
