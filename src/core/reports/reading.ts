import type { Figures } from '../figures';

/** What a column of a search term report can be taken for. */
export const COLUMN_ROLES = [
  'search term',
  'campaign',
  'ad group',
  'keyword',
  'match type',
  'day',
  'impressions',
  'clicks',
  'cost',
  'conversions',
  'value',
] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];

export const FIGURE_ROLES = ['impressions', 'clicks', 'cost', 'conversions', 'value'] as const;
export type FigureRole = (typeof FIGURE_ROLES)[number];

export type DecimalMark = '.' | ',';
export type DayOrder = 'day first' | 'month first';
export type ReportMatch = 'broad' | 'phrase' | 'exact' | 'automatic';

/** One row as it will be stored. Text is trimmed, otherwise as it stood in the file. */
export type ReportRow = {
  line: number;
  term: string;
  campaign: string;
  adGroup: string;
  /** null where the report names none (automatic targeting) */
  keyword: string | null;
  match: ReportMatch | null;
  /** YYYY-MM-DD */
  day: string;
} & Figures;

export type RowCategory =
  | 'too few cells'
  | 'too many cells'
  | 'no search term'
  | 'bad number'
  | 'bad day'
  | 'negative figure'
  | 'too long'
  | 'not text'
  | 'total row';

/** A row that was not read, with the line it begins on (from 1) and the line's own text. */
export type RejectedRow = { line: number; category: RowCategory; reason: string; raw: string };

export type FileCategory =
  'empty' | 'no header' | 'no search term column' | 'not a table' | 'damaged' | 'undecided';

export type FileError = { category: FileCategory; message: string };

export type ReadColumn = {
  index: number;
  header: string;
  /** null: left out */
  role: ColumnRole | null;
  /** why it was taken for that, or left out */
  because: string;
  /** the first filled cell */
  sample: string;
};

/** What the file alone can not decide, and the answers there are. */
export type Question =
  | { code: 'day order'; column: string; text: string; options: DayOrder[] }
  | { code: 'decimal mark'; column: string; text: string; options: DecimalMark[] }
  | { code: 'day'; column: null; text: string; options: [] };

/** How a file was read. */
export type Reading = {
  kind: 'search terms';
  encoding: string | null;
  separator: string | null;
  /** from 1; null when no header was found */
  headerLine: number | null;
  columns: ReadColumn[];
  days: { from: string; to: string } | null;
  /** rows that can be stored */
  rows: number;
  sums: Figures;
  /** the first 10,000 of them; `rejectedCount` counts all, total rows set aside not among them */
  rejected: RejectedRow[];
  rejectedCount: number;
  /** the first rows as they will be stored */
  preview: ReportRow[];
  questions: Question[];
  error: FileError | null;
};

/** What a person can correct or decide, and where the rows go. */
export type ReadOptions = {
  /** by column index; null leaves the column out */
  roles?: Readonly<Record<number, ColumnRole | null>>;
  dayOrder?: DayOrder;
  decimalMark?: DecimalMark;
  /** the day of all rows, for a file that has no day column; YYYY-MM-DD */
  day?: string;
  /** rows in batches of at most 2,000; reading waits for the promise */
  onRows?: (rows: ReportRow[]) => void | Promise<void>;
  onRejected?: (rows: RejectedRow[]) => void | Promise<void>;
  /** stops the reading with its reason */
  signal?: { throwIfAborted(): void };
};
