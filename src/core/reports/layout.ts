import { isKnownHeader, roleOfHeader } from './headers';
import { splitRows, type CellRow } from './delimited';

/** Where the table of a file begins. */
export type Layout = { separator: string; header: CellRow };

const SEPARATORS = [',', '\t', ';', '|'] as const;

/** Lines above the header that a report may carry. */
const LONGEST_PREAMBLE = 30;

/**
 * Finds separator and header line together: the line that, split one way, holds most names that are known.
 * @param head the beginning of the file
 */
export async function findLayout(head: string): Promise<Layout | undefined> {
  let best: { layout: Layout; known: number } | undefined;
  for (const separator of SEPARATORS) {
    for (const row of await firstRows(head, separator)) {
      const known = countKnown(row.cells);
      if (known >= 2 && (!best || known > best.known)) best = { layout: { separator, header: row }, known };
    }
  }
  return best?.layout;
}

async function firstRows(head: string, separator: string): Promise<CellRow[]> {
  const rows: CellRow[] = [];
  for await (const more of splitRows(once(head), separator, () => undefined)) {
    rows.push(...more.slice(0, LONGEST_PREAMBLE + 1 - rows.length));
    if (rows.length > LONGEST_PREAMBLE) break;
  }
  return rows;
}

/** The layout of rows that come apart already (from a sheet or a paste). */
export function findHeader(rows: readonly CellRow[]): CellRow | undefined {
  let best: CellRow | undefined;
  for (const row of rows.slice(0, LONGEST_PREAMBLE + 1)) {
    const known = countKnown(row.cells);
    if (known >= 2 && known > (best ? countKnown(best.cells) : 0)) best = row;
  }
  return best;
}

/** How many cells name a column; a search term column counts most, one that is left out hardly. Figures never do. */
function countKnown(cells: readonly string[]): number {
  return cells.reduce((sum, cell) => {
    if (/^\s*[\d.,]+\s*$/.test(cell) || !isKnownHeader(cell)) return sum;
    const { role } = roleOfHeader(cell);
    return sum + (role === null ? 0.1 : role === 'search term' ? 1.5 : 1);
  }, 0);
}

async function* once(text: string): AsyncGenerator<string> {
  yield text;
}
