import { currencyIn } from '../cells/currency';
import { dayOrderEvidence, readDay } from '../cells/days';
import { decimalEvidence, isMissing, mayBeNumber } from '../cells/numbers';
import type { DayOrder, DecimalMark } from '../reading';

/** What the cells of one column have shown so far. */
export type ColumnEvidence = {
  /** the first filled cell */
  first: string;
  filled: number;
  /** of the first cells, how many can be read as a figure, and as a day */
  looked: number;
  numbers: number;
  days: number;
  /** cells that can only have this decimal mark */
  marks: Record<DecimalMark, number>;
  /** cells such as 1,234 or 1.234, by the mark that stands in them, and the first of them */
  either: Record<DecimalMark, number>;
  firstEither: string;
  order: Record<DayOrder | 'either', number>;
  /** the first day whose order is not sure */
  firstUnsure: string;
  currencies: Map<string, number>;
};

/** Cells of a column that are looked at for what it may be. */
const LOOKED_AT = 300;
const MOST_CURRENCIES = 8;

/** @param width number of columns */
export function createEvidence(width: number): ColumnEvidence[] {
  return Array.from({ length: width }, () => ({
    ...{ first: '', filled: 0, looked: 0, numbers: 0, days: 0, firstEither: '', firstUnsure: '' },
    marks: { '.': 0, ',': 0 },
    either: { '.': 0, ',': 0 },
    order: { 'day first': 0, 'month first': 0, either: 0 },
    currencies: new Map(),
  }));
}

/** Takes more rows into account. */
export function gather(evidence: readonly ColumnEvidence[], rows: readonly (readonly string[])[]): void {
  for (const cells of rows) {
    for (let c = 0; c < evidence.length; c++) {
      const cell = (cells[c] ?? '').trim();
      if (!isMissing(cell)) look(evidence[c]!, cell);
    }
  }
}

function look(column: ColumnEvidence, cell: string) {
  if (column.filled === 0) column.first = cell;
  column.filled += 1;
  if (column.looked < LOOKED_AT) {
    column.looked += 1;
    if (mayBeNumber(cell)) column.numbers += 1;
    if (readDay(cell, 'day first') ?? readDay(cell, 'month first')) column.days += 1;
  }
  if (!/\d/.test(cell)) {
    if (cell.length <= 4) note(column, cell); // a cell of a currency column
    return;
  }
  if (cell.length > 40) return;
  const mark = decimalEvidence(cell.replace(/\s*%$/, ''));
  if (mark === 'either') {
    column.either[cell.includes(',') ? ',' : '.'] += 1;
    column.firstEither ||= cell;
  } else if (mark) column.marks[mark] += 1;
  const order = dayOrderEvidence(cell);
  if (order) column.order[order] += 1;
  if (order === 'either') column.firstUnsure ||= cell;
  if (/[^\d.,\s-]/.test(cell)) note(column, cell);
}

function note({ currencies }: ColumnEvidence, cell: string) {
  const currency = currencyIn(cell);
  if (currency === undefined) return;
  if (currencies.size < MOST_CURRENCIES || currencies.has(currency))
    currencies.set(currency, (currencies.get(currency) ?? 0) + 1);
}
