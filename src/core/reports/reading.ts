import type { Figures } from '../figures';

/** What a file can be about. */
export const REPORT_KINDS = ['search terms', 'keywords', 'keyword ideas', 'structure'] as const;
export type ReportKind = (typeof REPORT_KINDS)[number];

export const FIGURE_ROLES = ['impressions', 'clicks', 'cost', 'conversions', 'value'] as const;
export type FigureRole = (typeof FIGURE_ROLES)[number];

/** What a column can be taken for, by kind of file. */
export const ROLES_OF_KIND = {
  'search terms': [
    ...['search term', 'campaign', 'ad group', 'keyword', 'match type', 'day', 'currency'],
    ...FIGURE_ROLES,
  ],
  keywords: [
    ...['campaign', 'ad group', 'keyword', 'match type', 'day', 'currency'],
    ...FIGURE_ROLES,
    ...['other conversions', 'bid', 'impression share', 'quality'],
  ],
  'keyword ideas': ['keyword', 'volume', 'competition', 'low bid', 'high bid', 'currency'],
  structure: [
    ...['element', 'campaign', 'ad group', 'keyword', 'match type', 'list', 'status', 'bid'],
    ...['end date', 'currency'],
  ],
} as const satisfies Record<ReportKind, readonly string[]>;
export type ColumnRole = (typeof ROLES_OF_KIND)[ReportKind][number];

/** What several columns of a file may be; every other role goes to one of them. */
export const SHARED_ROLE = 'other conversions' satisfies ColumnRole;

/** Columns that hold numbers. */
export const NUMBER_ROLES = [
  ...FIGURE_ROLES,
  ...['other conversions', 'volume', 'low bid', 'high bid', 'bid', 'impression share', 'quality'],
] as const satisfies readonly ColumnRole[];
export type NumberRole = (typeof NUMBER_ROLES)[number];

/** Columns that hold amounts of money. */
export const MONEY_ROLES: readonly ColumnRole[] = ['cost', 'value', 'low bid', 'high bid', 'bid'];

/** Columns that hold whole numbers. */
export const WHOLE_ROLES: readonly ColumnRole[] = ['impressions', 'clicks', 'volume'];

export type DecimalMark = '.' | ',';
export type DayOrder = 'day first' | 'month first';
export type ReportMatch = 'broad' | 'phrase' | 'exact' | 'automatic';
/** Days from … to, both in it; YYYY-MM-DD. */
export type Period = { from: string; to: string };

/** One row of a search term report as it will be stored. Text is trimmed, otherwise as it stood in the file. */
export type ReportRow = {
  line: number;
  term: string;
  campaign: string;
  adGroup: string;
  /** null where the report names none (automatic targeting) */
  keyword: string | null;
  match: ReportMatch | null;
  /** YYYY-MM-DD; of a file without days, the last day of its period */
  day: string;
} & Figures;

/** One row of a keyword report as it will be stored. */
export type KeywordRow = {
  line: number;
  campaign: string;
  adGroup: string;
  keyword: string;
  match: ReportMatch | null;
  /** YYYY-MM-DD; of a file without days, the last day of its period */
  day: string;
  bidMicros: number | null;
  /** of the impressions that the keyword could have had, 0..1 */
  impressionShare: number | null;
  /** as the platform rates the keyword, on its own scale */
  quality: number | null;
  /** further kinds of conversion by the header of their column; what is unknown is left out */
  otherConversions: Record<string, number>;
} & Figures;

/** A keyword idea from research. */
export type IdeaRow = {
  line: number;
  text: string;
  /** searches a month; of a range its middle */
  volume: number | null;
  /** the ends of the range, equal where the source tells one figure */
  volumeFrom: number | null;
  volumeTo: number | null;
  /** 0..1 or a word, as it stood in the file */
  competition: string | null;
  lowBidMicros: number | null;
  highBidMicros: number | null;
};

export type ElementStatus = 'live' | 'paused' | 'ended' | 'removed';

/** An element of an account's structure. */
export type ElementRow = { line: number; status: ElementStatus } & (
  | { element: 'campaign'; campaign: string; endDate: string | null }
  | { element: 'ad group'; campaign: string; adGroup: string }
  | {
      element: 'keyword';
      campaign: string;
      adGroup: string;
      text: string;
      match: ReportMatch;
      bidMicros: number | null;
    }
  | {
      element: 'negative';
      campaign: string;
      adGroup: string;
      list: string;
      text: string;
      match: 'broad' | 'phrase' | 'exact';
    }
  | { element: 'list'; list: string; campaign: string }
);

export type AnyRow = ReportRow | KeywordRow | IdeaRow | ElementRow;

export type RowCategory =
  | 'too few cells'
  | 'too many cells'
  | 'no search term'
  | 'no keyword'
  | 'bad number'
  | 'bad day'
  | 'negative figure'
  | 'other currency'
  | 'too long'
  | 'not text'
  | 'total row';

/** A row that was not read, with the line it begins on (from 1) and the line's own text. */
export type RejectedRow = { line: number; category: RowCategory; reason: string; raw: string };

export type FileCategory =
  'empty' | 'no header' | 'no search term column' | 'not a table' | 'damaged' | 'encrypted' | 'undecided';

export type FileError = { category: FileCategory; message: string };

export type ReadColumn = {
  index: number;
  header: string;
  /** null: left out */
  role: ColumnRole | null;
  /** why it was taken for that, or left out, and how its cells are read */
  because: string;
  /** the first filled cell */
  sample: string;
  /** how its decimals are marked, where it holds numbers */
  decimalMark?: DecimalMark;
  /** how many cells can only be read one way, and how many either way; where there is more than one */
  shown?: Partial<Record<DecimalMark | DayOrder | 'either', number>>;
};

/** What the file alone can not decide, and the answers there are. */
export type Question =
  | { code: 'day order'; column: string; text: string; options: DayOrder[] }
  | { code: 'decimal mark'; column: string; text: string; options: DecimalMark[] }
  /** bytes that are neither all of one encoding nor of the other */
  | { code: 'encoding'; column: null; text: string; options: string[] }
  /** a column that nobody named holds nothing but codes of currencies; `index` is its place */
  | { code: 'currency column'; column: string; index: number; text: string; options: [] }
  /** `suggested` stands above the table: it is shown, not taken */
  | { code: 'period'; column: null; text: string; options: []; suggested: Period | null };

/** How a file was read. */
export type Reading = {
  kind: ReportKind;
  encoding: string | null;
  separator: string | null;
  /** from 1; 0 where there is none, and a person names the columns; null when nothing was found */
  headerLine: number | null;
  columns: ReadColumn[];
  dayOrder: DayOrder | null;
  /** ISO 4217, or a mark that several share (“$”); null where nothing names one */
  currency: string | null;
  days: Period | null;
  /** how many rows each day has, by day */
  rowsByDay: Record<string, number>;
  /** rows that can be stored */
  rows: number;
  sums: Figures;
  /** cells that tell only a bound (“< 10”), by column: they count as unknown */
  bounds: Partial<Record<NumberRole, number>>;
  /** the first 10,000 of them; `rejectedCount` counts all, total rows set aside not among them */
  rejected: RejectedRow[];
  rejectedCount: number;
  /** the first rows as they will be stored */
  preview: AnyRow[];
  questions: Question[];
  /** only the first rows were read, as was asked */
  isPartial: boolean;
  error: FileError | null;
};

/** What a person can correct or decide. */
export type ReadDecisions = {
  kind?: ReportKind;
  /** by column index; null leaves the column out */
  roles?: Readonly<Record<number, ColumnRole | null>>;
  encoding?: string;
  separator?: string;
  /** from 1; 0: there is none */
  headerLine?: number;
  dayOrder?: DayOrder;
  /** of all columns; those of one column go before it */
  decimalMark?: DecimalMark;
  decimalMarks?: Readonly<Record<number, DecimalMark>>;
  /** days that all rows belong to, for a file that has no day column */
  period?: Period;
};

/** Decisions, and where the rows go. */
export type ReadOptions = ReadDecisions & {
  /** ISO 4217: what the rows are wanted in, where the file holds several currencies */
  currency?: string;
  /** rows in batches of at most 2,000; reading waits for the promise. Not called while a question is open. */
  onRows?: (rows: ReportRow[]) => void | Promise<void>;
  onKeywords?: (rows: KeywordRow[]) => void | Promise<void>;
  onIdeas?: (rows: IdeaRow[]) => void | Promise<void>;
  onElements?: (rows: ElementRow[]) => void | Promise<void>;
  onRejected?: (rows: RejectedRow[]) => void | Promise<void>;
  /** reads no more rows than about so many, for a first look */
  mostRows?: number;
  /** stops the reading with its reason */
  signal?: { throwIfAborted(): void };
};
