import { dayOrderEvidence } from './days';
import { roleOfHeader } from './headers';
import { decimalEvidence, isMissing } from './numbers';
import {
  FIGURE_ROLES,
  type ColumnRole,
  type DayOrder,
  type DecimalMark,
  type FigureRole,
  type Question,
  type ReadColumn,
  type ReadOptions,
} from './reading';

/** How the cells of a file are to be read. */
export type Understanding = {
  columns: ReadColumn[];
  /** column index by role */
  at: Partial<Record<ColumnRole, number>>;
  decimalMark: Partial<Record<FigureRole, DecimalMark>>;
  dayOrder: DayOrder;
  /** days read so far, by cell: a report repeats few days many times */
  knownDays: Map<string, string | undefined>;
  questions: Question[];
};

/** Understands columns from their headers and first rows; what a person decided goes before what was found. */
export function understandColumns(
  headers: readonly string[],
  sample: readonly (readonly string[])[],
  options: ReadOptions,
): Understanding {
  const columns = assignRoles(headers, sample, options.roles ?? {});
  const at: Partial<Record<ColumnRole, number>> = {};
  for (const { role, index } of columns) if (role) at[role] = index;

  const questions: Question[] = [];
  const decimalMark = readDecimalMarks(columns, sample, options, questions);
  const dayOrder = readDayOrder(columns, sample, options, questions);
  if (at.day === undefined && options.day === undefined) {
    questions.push({
      code: 'day',
      column: null,
      text: 'No column holds days. Which day do these rows belong to?',
      options: [],
    });
  }
  return { columns, at, decimalMark, dayOrder, knownDays: new Map(), questions };
}

function assignRoles(
  headers: readonly string[],
  sample: readonly (readonly string[])[],
  chosen: Readonly<Record<number, ColumnRole | null>>,
): ReadColumn[] {
  const taken = new Set(Object.values(chosen));
  const columns: ReadColumn[] = headers.map((header, index) => {
    const first = sample.find((row) => (row[index] ?? '').trim() !== '')?.[index]?.trim() ?? '';
    const base = { index, header: header.trim() || `column ${index + 1}`, sample: first.slice(0, 120) };
    if (index in chosen) return { ...base, role: chosen[index] ?? null, because: 'you said so' };
    return { ...base, ...roleOfHeader(header) };
  });
  // Two columns may bear one name ("Conversions", "Conversions by day"): the shortest header is the plain one.
  const byLength = [...columns].sort((a, b) => a.header.length - b.header.length || a.index - b.index);
  for (const column of byLength) {
    if (column.role === null || column.index in chosen) continue;
    if (taken.has(column.role)) {
      column.because = `another column is the ${column.role}`;
      column.role = null;
    } else taken.add(column.role);
  }
  return columns;
}

function readDecimalMarks(
  columns: ReadColumn[],
  sample: readonly (readonly string[])[],
  options: ReadOptions,
  questions: Question[],
): Partial<Record<FigureRole, DecimalMark>> {
  const figures = columns.filter((c): c is ReadColumn & { role: FigureRole } => isFigureRole(c.role));
  const found = figures.map((column) => ({ column, ...countMarks(column, sample) }));
  const inFile = decide(sum(found, '.'), sum(found, ','));
  const marks: Partial<Record<FigureRole, DecimalMark>> = {};
  let asked = false;
  for (const { column, '.': points, ',': commas, either } of found) {
    const own = options.decimalMark ?? decide(points, commas) ?? inFile;
    if (own === undefined && either > 0 && !asked) {
      asked = true; // one answer settles the file
      questions.push({
        code: 'decimal mark',
        column: column.header,
        text: `“${column.sample}” in ${column.header} could be over a thousand, or a little over one. Which mark stands before decimals?`,
        options: ['.', ','],
      });
    }
    marks[column.role] = own ?? '.';
    if (own && points + commas + either > 0)
      column.because += own === ',' ? ', decimal comma' : ', decimal point';
  }
  return marks;
}

type MarkCounts = { '.': number; ',': number; either: number };

function countMarks(
  column: ReadColumn & { role: FigureRole },
  sample: readonly (readonly string[])[],
): MarkCounts {
  const counts: MarkCounts = { '.': 0, ',': 0, either: 0 };
  for (const row of sample) {
    const cell = row[column.index] ?? '';
    const evidence = decimalEvidence(cell);
    if (evidence === undefined) continue;
    if (evidence === 'either' && (column.role === 'clicks' || column.role === 'impressions')) {
      counts[cell.includes(',') ? '.' : ','] += 1; // these are whole numbers, so the mark groups thousands
    } else counts[evidence] += 1;
  }
  return counts;
}

function sum(found: readonly MarkCounts[], mark: DecimalMark): number {
  return found.reduce((total, counts) => total + counts[mark], 0);
}

/** The mark that evidence speaks for; a few cells against many are faults of those cells. */
function decide(points: number, commas: number): DecimalMark | undefined {
  if (points === commas) return undefined;
  return points > commas ? '.' : ',';
}

function readDayOrder(
  columns: ReadColumn[],
  sample: readonly (readonly string[])[],
  options: ReadOptions,
  questions: Question[],
): DayOrder {
  const column = columns.find((c) => c.role === 'day');
  if (!column) return 'day first';
  const counts = { 'day first': 0, 'month first': 0, either: 0 };
  for (const row of sample) {
    const cell = row[column.index] ?? '';
    const evidence = isMissing(cell) ? undefined : dayOrderEvidence(cell);
    if (evidence) counts[evidence] += 1;
  }
  if (options.dayOrder) return options.dayOrder;
  const decided = counts['day first'] !== counts['month first'];
  if (!decided && counts.either > 0) {
    questions.push({
      code: 'day order',
      column: column.header,
      text: `“${column.sample}” in ${column.header}: does the day come first, or the month?`,
      options: ['day first', 'month first'],
    });
    return 'day first';
  }
  const order = counts['month first'] > counts['day first'] ? 'month first' : 'day first';
  if (decided) column.because += `, ${order}`;
  return order;
}

function isFigureRole(role: ColumnRole | null): role is FigureRole {
  return (FIGURE_ROLES as readonly (ColumnRole | null)[]).includes(role);
}
