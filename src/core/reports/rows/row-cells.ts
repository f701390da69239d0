import { agreeOnCurrency, currencyIn } from '../cells/currency';
import type { CellRow } from '../table/delimited';
import type { Understanding } from '../columns/understand-columns';
import { readDay } from '../cells/days';
import { isMissing, readNumber, readPlain } from '../cells/numbers';
import { readVolume, type Volume } from '../cells/volumes';
import {
  MONEY_ROLES,
  WHOLE_ROLES,
  type ColumnRole,
  type NumberRole,
  type ReadColumn,
  type RejectedRow,
  type RowCategory,
} from '../reading';

/** A row that was read, or why it was not. */
export type Outcome<Row> = { row: Row } | { rejected: RejectedRow };

/** Why a row is refused; thrown while its cells are read, and made a value by `readRow`. */
export class Refused extends Error {
  constructor(
    readonly category: RowCategory,
    readonly reason: string,
  ) {
    super(reason);
  }
}

/** Texts are kept up to this many code points. */
const LONGEST_TEXT = 400;
const LONGEST_RAW = 2_000;
const LONGEST_KIND = 100;
const NOT_TEXT = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFD]/;
const SHOWN = 40;

/**
 * Ways to read the cells of the row at hand, one for each column, made once for a file. What can not be read throws
 * `Refused`.
 */
export type Cells = {
  /** Takes another row in hand. */
  turnTo(cells: readonly string[]): void;
  /** trimmed; '' where there is no such column */
  text(role: ColumnRole): () => string;
  /**
   * The same for a column of names, which come again and again: what a cell is read as is remembered, so that it is one
   * and the same value for equal cells.
   */
  name<Value>(role: ColumnRole, read: (name: string) => Value): () => Value;
  /** null where it is unknown */
  number(role: NumberRole): () => number | null;
  /** money in micro-units */
  micros(role: NumberRole): () => number | null;
  /** a share of 0..1, which may be written as a percentage; null where it is unknown */
  share(role: 'impression share'): () => number | null;
  /** figures of several columns by their headers; what is unknown is left out */
  counts(columns: readonly NumberColumn[]): () => Record<string, number>;
  /** searches a month; null where they are unknown */
  volume(): () => Volume | null;
  /** YYYY-MM-DD, or undefined where the cell is empty */
  day(role: 'day' | 'end date'): () => string | undefined;
};

type NumberColumn = Pick<ReadColumn, 'index' | 'header'> & { role: NumberRole };

export type Bounds = Partial<Record<NumberRole, number>>;

/** @param bounds counts the cells that tell only a bound */
export function createCells(how: Understanding, bounds: Bounds): Cells {
  let cells: readonly string[] = [];

  function text(role: ColumnRole): () => string {
    const at = how.at[role];
    return at === undefined ? () => '' : () => bareText(cells[at] ?? '');
  }

  function number(role: NumberRole): () => number | null {
    const at = how.at[role];
    return at === undefined ? () => null : numberAt(at, role);
  }

  function numberAt(at: number, role: NumberRole): () => number | null {
    const read = numberReader(role, at, how, bounds);
    return () => read(bareText(cells[at] ?? ''));
  }

  return {
    ...{ turnTo: (row) => void (cells = row), text, number },
    name(role, read) {
      const at = how.at[role];
      const readName = remembering((cell) => read(bareText(cell)));
      return () => readName(at === undefined ? '' : (cells[at] ?? ''));
    },
    micros(role) {
      const [value, unit] = [number(role), 1e6 * (how.units[role] ?? 1)];
      return () => {
        const read = value();
        return read === null ? null : Math.round(read * unit);
      };
    },
    volume() {
      if (how.at.volume === undefined) return () => null;
      const { mark } = how.marks[how.at.volume]!;
      const cell = text('volume');
      return () => {
        const read = readVolume(cell(), mark);
        if (read !== undefined) return read;
        throw new Refused('bad number', `volume “${cell().slice(0, SHOWN)}”`);
      };
    },
    share(role) {
      const at = how.at[role];
      if (at === undefined) return () => null;
      const [cell, read] = [text(role), numberReader(role, at, how, bounds)];
      return () => {
        const shown = cell();
        const percent = shown.endsWith('%') ? shown.slice(0, -1).trimEnd() : null;
        const value = read(percent ?? shown);
        const share = percent === null || value === null ? value : Number((value / 100).toPrecision(12));
        if (share === null || share <= 1) return share;
        const remedy = percent === null ? `: where it is a percentage, write ${value} %` : '';
        throw new Refused('bad number', `${role} “${shown.slice(0, SHOWN)}” is over the whole${remedy}`);
      };
    },
    counts(columns) {
      const named = columns.map(({ index, header, role }) => ({
        header: nameOfKind(header),
        read: numberAt(index, role),
      }));
      return () => {
        const known: Record<string, number> = {};
        for (const { header, read } of named) {
          const value = read();
          if (value !== null) known[header] = (known[header] ?? 0) + value;
        }
        return known;
      };
    },
    day(role) {
      const ofRole = text(role);
      return () => {
        const cell = ofRole();
        if (isMissing(cell)) return undefined;
        const day = knownDay(cell, how);
        if (day === undefined) throw new Refused('bad day', `${role} “${cell.slice(0, SHOWN)}”`);
        return day;
      };
    },
  };
}

/** Cells of a column that are remembered. */
const MOST_KNOWN = 5_000;

/** Remembers what cells were read as, but not those that `read` throws at. */
function remembering<Value>(read: (cell: string) => Value): (cell: string) => Value {
  const known = new Map<string, { value: Value }>();
  return (cell) => {
    const found = known.get(cell);
    if (found) return found.value;
    const own = copyOf(cell);
    const value = read(own);
    if (known.size < MOST_KNOWN) known.set(own, { value });
    return value;
  };
}

/** The same text by itself: a part of a text that was taken out of it keeps all of it in memory. */
function copyOf(text: string): string {
  return ` ${text}`.slice(1);
}

/** Reads the cells of one column of numbers. @throws Refused */
function numberReader(
  role: NumberRole,
  at: number,
  { marks, currency }: Understanding,
  bounds: Bounds,
): (cell: string) => number | null {
  const { mark, isStrict } = marks[at]!;
  const isWhole = WHOLE_ROLES.includes(role);
  const isOfMoney = MONEY_ROLES.includes(role);
  return (cell) => {
    const plain = readPlain(cell, mark);
    if (plain >= 0 && !isStrict && (!isWhole || Number.isInteger(plain))) return plain; // nearly all
    const shown = `${role} “${cell.slice(0, SHOWN)}”`;
    const read = readNumber(cell, mark);
    if ('fault' in read) throw new Refused(read.fault, shown);
    if (read.isBound) bounds[role] = (bounds[role] ?? 0) + 1;
    if (isStrict && couldBeEither(cell))
      throw new Refused('bad number', `${shown} can be read two ways, and the column uses both marks`);
    if (isWhole && read.value !== null && !Number.isInteger(read.value))
      throw new Refused('bad number', `${shown} is not whole`);
    if (currency !== null && isOfMoney) checkCurrency(role, cell, currency);
    return read.value;
  };
}

/** A cell without spaces around it and without what keeps a text from being counted with in a spreadsheet. */
function bareText(cell: string): string {
  if (isPlain(cell.charCodeAt(0)) && isPlain(cell.charCodeAt(cell.length - 1))) return cell; // most cells
  return unwrapped(cell.trim());
}

/** Letters a–z, A–Z and digits. */
function isPlain(char: number): boolean {
  const letter = char | 32;
  return (letter >= 97 && letter <= 122) || (char >= 48 && char <= 57);
}

/** What keeps a text from being counted with in a spreadsheet: ="…", or an apostrophe before what starts a formula. */
function unwrapped(cell: string): string {
  if (cell.startsWith("'") && /^'[=+\-@]/.test(cell)) return cell.slice(1);
  return cell.startsWith('="') && cell.endsWith('"') && cell.length > 3 ? cell.slice(2, -1).trim() : cell;
}

function couldBeEither(cell: string): boolean {
  return /^\D*[1-9]\d{0,2}[.,]\d{3}\D*$/.test(cell);
}

function checkCurrency(role: string, cell: string, currency: string) {
  if (!/[^\d.,\s-]/.test(cell)) return; // most cells
  const own = currencyIn(cell);
  if (own !== undefined && !agreeOnCurrency(own, currency))
    throw new Refused(
      'bad number',
      `${role} “${cell.slice(0, SHOWN)}” is not in ${currency} as the others are`,
    );
}

/** The day that a cell names, remembered by the cell. */
export function knownDay(cell: string, { knownDays, dayOrder }: Understanding): string | undefined {
  let day = knownDays.get(cell);
  if (day === undefined && !knownDays.has(cell)) {
    day = readDay(cell, dayOrder);
    if (knownDays.size < MOST_KNOWN) knownDays.set(cell, day);
  }
  return day;
}

/** @returns the text. @throws Refused when it can not be kept */
export function checkText(text: string): string {
  if (NOT_TEXT.test(text)) throw new Refused('not text', 'holds bytes that are no text');
  if (text.length > LONGEST_TEXT && [...text].length > LONGEST_TEXT)
    throw new Refused('too long', `${[...text].length} characters, ${LONGEST_TEXT} are kept`);
  return text;
}

/** The header of a column as it can be kept as a name; what names an object's own parts is put in brackets. */
function nameOfKind(header: string): string {
  const plain = header.replace(/[\u0000-\u001F\uFFFD]+/g, ' ');
  const name = [...plain].slice(0, LONGEST_KIND).join('').trim();
  return name in {} ? `(${name})` : name || 'without a name';
}

/** A row's own text, as it is kept beside the reason for its refusal. */
export function rawOf({ raw, cells }: CellRow, separator: string | null): string {
  return (raw ?? cells.join(separator ?? '\t')).slice(0, LONGEST_RAW).replaceAll('\u0000', '␀');
}
