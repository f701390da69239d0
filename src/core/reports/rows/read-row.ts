import type { CellRow } from '../table/delimited';
import type { Understanding } from '../columns/understand-columns';
import { agreeOnCurrency, currencyIn } from '../cells/currency';
import { isMissing } from '../cells/numbers';
import type { AnyRow, RejectedRow } from '../reading';
import { createCells, knownDay, rawOf, Refused, type Bounds, type Cells, type Outcome } from './row-cells';
import { elementReader } from './element-row';
import { ideaReader } from './idea-row';
import { keywordReader } from './keyword-row';
import { searchTermReader } from './search-term-row';

/** What rows of a file are read by. */
type Of = {
  header: readonly string[];
  separator: string | null;
  /** rows of a sheet end with their last filled cell */
  isPadded: boolean;
};

/**
 * Reads the rows of a file one by one, or says why one can not be.
 * @param bounds counts the cells that tell only a bound
 */
export function rowReader(
  { header, separator, isPadded }: Of,
  how: Understanding,
  bounds: Bounds,
): (source: CellRow) => Outcome<AnyRow> {
  const cellsInHand = createCells(how, bounds);
  const read = readerOf(cellsInHand, how);
  const expected = header.length;
  const requireCurrency = currencyChecker(cellsInHand, how);
  return (source) => {
    const { cells, line } = source;
    const refuse = (category: RejectedRow['category'], reason: string): Outcome<AnyRow> => ({
      rejected: { line, category, reason, raw: rawOf(source, separator) },
    });
    if (source.isCut) return refuse('too long', 'a line of more than 256,000 characters');
    if (isTotal(cells, how))
      return refuse('total row', `set aside: “${cells.find((c) => c.trim() !== '')?.trim() ?? ''}”`);
    if (isHeaderAgain(cells, header)) return refuse('total row', 'set aside: the header again');
    if (cells.length < expected && !isPadded)
      return refuse('too few cells', `${cells.length} of ${expected}`);
    if (cells.length > expected && cells.slice(expected).some((extra) => extra.trim() !== ''))
      return refuse('too many cells', `${cells.length} of ${expected}`);
    try {
      cellsInHand.turnTo(cells);
      requireCurrency();
      return { row: read(line) };
    } catch (error) {
      if (error instanceof Refused) return refuse(error.category, error.reason);
      throw error;
    }
  };
}

/** Asks of each row whether its own cell names the currency that the money columns are in. */
function currencyChecker(cells: Cells, { at, currency }: Understanding): () => void {
  if (at.currency === undefined || currency === null) return () => undefined;
  const named = cells.name('currency', (cell) => (isMissing(cell) ? null : (currencyIn(cell) ?? cell)));
  return () => {
    const own = named();
    if (own !== null && !agreeOnCurrency(own, currency))
      throw new Refused('other currency', `in ${own.slice(0, 20)}, and the others are in ${currency}`);
  };
}

function readerOf(cells: Cells, how: Understanding): (line: number) => AnyRow {
  switch (how.kind) {
    case 'search terms':
      return searchTermReader(cells, how);
    case 'keywords':
      return keywordReader(cells, how);
    case 'keyword ideas':
      return ideaReader(cells);
    case 'structure':
      return elementReader(cells);
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
