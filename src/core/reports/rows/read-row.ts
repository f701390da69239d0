import type { CellRow } from '../table/delimited';
import type { Understanding } from '../columns/understand-columns';
import { isMissing } from '../cells/numbers';
import type { AnyRow, RejectedRow } from '../reading';
import { knownDay, rawOf, Refused, type Cells, type Outcome } from './row-cells';
import { readElementRow } from './element-row';
import { readIdeaRow } from './idea-row';
import { readSearchTermRow } from './search-term-row';

/** What is the same for all rows of a file. */
export type RowReader = {
  how: Understanding;
  header: readonly string[];
  separator: string | null;
  /** rows of a sheet end with their last filled cell */
  isPadded: boolean;
  cells: Cells;
};

/** Reads one row of cells, or says why it can not be. */
export function readRow(source: CellRow, reader: RowReader): Outcome<AnyRow> {
  const { cells, line } = source;
  const { header } = reader;
  const refuse = (category: RejectedRow['category'], reason: string): Outcome<AnyRow> => ({
    rejected: { line, category, reason, raw: rawOf(source, reader.separator) },
  });
  if (source.isCut) return refuse('too long', 'a line of more than 256,000 characters');
  if (isTotal(cells, reader.how))
    return refuse('total row', `set aside: “${cells.find((c) => c.trim() !== '')?.trim() ?? ''}”`);
  if (isHeaderAgain(cells, header)) return refuse('total row', 'set aside: the header again');
  const expected = header.length;
  if (cells.length < expected && !reader.isPadded)
    return refuse('too few cells', `${cells.length} of ${expected}`);
  if (cells.length > expected && cells.slice(expected).some((extra) => extra.trim() !== ''))
    return refuse('too many cells', `${cells.length} of ${expected}`);
  try {
    return { row: readOf(source, reader) };
  } catch (error) {
    if (error instanceof Refused) return refuse(error.category, error.reason);
    throw error;
  }
}

function readOf(source: CellRow, { how, cells }: RowReader): AnyRow {
  cells.turnTo(source.cells);
  switch (how.kind) {
    case 'search terms':
      return readSearchTermRow(cells, source.line, how);
    case 'keyword ideas':
      return readIdeaRow(cells, source.line);
    case 'structure':
      return readElementRow(cells, source.line);
  }
}

/** What totals are called; a row that has a day is none, whatever it is called. */
const TOTAL =
  /^(grand |sub ?|sub-)?(totals?|gesamt(summe|ergebnis|wert)?|insgesamt|zwischensumme|summe|sommes?|suma|totaal|totales)( ?[:(–—-].*)?$/i;
/** The same among other words, where the row has no day though the file has them. */
const TOTAL_AMONG =
  /(^|[\s-])(sub|eind|zwischen)?(totals?|gesamt\w*|insgesamt|summe|sommes?|suma|totaal|totales)($|[\s:(–—-])/i;
const LONGEST_LABEL = 60;

/** A row of totals names itself in one cell and holds no other text. */
function isTotal(cells: readonly string[], how: Understanding): boolean {
  const at = how.at.day;
  const day = at === undefined ? undefined : (cells[at] ?? '').trim();
  if (day !== undefined && !isMissing(day) && knownDay(day, how) !== undefined) return false; // most rows
  const isNamed = (cell: string) =>
    cell.length <= LONGEST_LABEL && (day === undefined ? TOTAL : TOTAL_AMONG).test(cell.trim());
  const label = cells.findIndex(isNamed);
  if (label < 0) return false;
  return cells.every(
    (cell, i) =>
      i === label || i === at || isMissing(cell) || !/\p{L}/u.test(cell.replace(/\b[A-Z]{3}\b/g, '')),
  );
}

/** Files that were put together repeat their header. */
function isHeaderAgain(cells: readonly string[], header: readonly string[]): boolean {
  return (
    cells.length === header.length && cells[0] === header[0] && cells.every((cell, i) => cell === header[i])
  );
}
