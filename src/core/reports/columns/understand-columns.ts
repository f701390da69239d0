import { agreeOnCurrency, currencyIn } from '../cells/currency';
import type { ColumnEvidence } from './evidence';
import { isKnown, roleOfHeader, type HeaderMeaning } from './headers';
import { decimalMarksOf, type ReadMark } from './marks';
import {
  MONEY_ROLES,
  NUMBER_ROLES,
  ROLES_OF_KIND,
  SHARED_ROLE,
  type ColumnRole,
  type DayOrder,
  type NumberRole,
  type Period,
  type Question,
  type ReadColumn,
  type ReadDecisions,
  type ReportKind,
} from '../reading';

/** How the cells of a file are to be read. */
export type Understanding = {
  kind: ReportKind;
  columns: ReadColumn[];
  /** column index by role; of the shared role the last */
  at: Partial<Record<ColumnRole, number>>;
  /** how the numbers of a column are read, by its index */
  marks: Record<number, ReadMark>;
  dayOrder: DayOrder;
  /** whether days were written so that the order matters */
  isOrdered: boolean;
  currency: string | null;
  /** what a figure of a money column is in: 1, or a part of it (cents, micro-units) */
  units: Partial<Record<NumberRole, number>>;
  /** of a file without days */
  period: Period | undefined;
  /** days read so far, by cell: a report repeats few days many times */
  knownDays: Map<string, string | undefined>;
  questions: Question[];
};

/**
 * Understands columns from their headers and from what their cells have shown; what a person decided goes before what
 * was found.
 * @param suggested days that stand above the table
 */
export function understandColumns(
  headers: readonly string[],
  evidence: readonly ColumnEvidence[],
  decisions: ReadDecisions & { currency?: string },
  suggested: Period | null = null,
): Understanding {
  const named = headers.map((header, index) => nameColumn(header, index, evidence[index]!, decisions));
  const kind = decisions.kind ?? kindOf(named, evidence);
  const columns = shareRoles(named, kind, evidence);
  const at: Partial<Record<ColumnRole, number>> = {};
  for (const { role, index } of columns) if (role) at[role] = index;

  const questions: Question[] = [];
  const marks = decimalMarksOf(columns, evidence, decisions, questions);
  const { dayOrder, isOrdered } = readDayOrder(columns, evidence, decisions, questions);
  // Where no column is named yet, one of them may hold the days.
  const isNamed = columns.some(({ role }) => role !== null);
  if (
    (kind === 'search terms' || kind === 'keywords') &&
    isNamed &&
    at.day === undefined &&
    !decisions.period
  ) {
    const text = 'No column holds days. Which days do these rows belong to?';
    questions.push({ code: 'period', column: null, text, options: [], suggested });
  }
  askForCurrencyColumn(columns, evidence, decisions, questions);
  return {
    ...{ kind, columns, at, marks, dayOrder, isOrdered, questions },
    currency: currencyOf(headers, columns, evidence, decisions.currency),
    units: unitsOf(headers, columns),
    period: decisions.period,
    knownDays: new Map(),
  };
}

/** Why a column of such a role is left out of files that have no use for it. */
const OF_OTHER_KINDS: Partial<Record<ColumnRole, string>> = {
  'other conversions': 'not the figure of the term itself',
};

/** Why a column is what it is where a person said so. */
export const SAID = 'you said so';

type Named = ReadColumn & { plainness: number; isSaid: boolean };

function nameColumn(
  header: string,
  index: number,
  evidence: ColumnEvidence,
  { roles = {} }: ReadDecisions,
): Named {
  const base = {
    index,
    header: header.trim() || `column ${index + 1}`,
    sample: evidence.first.slice(0, 120),
  };
  if (index in roles)
    return { ...base, role: roles[index] ?? null, because: SAID, plainness: 1, isSaid: true };
  return { ...base, ...meaningOf(header, evidence), isSaid: false };
}

/** What the header says; where it says nothing, what the cells are without doubt. */
function meaningOf(header: string, { filled, looked, days, numbers }: ColumnEvidence): HeaderMeaning {
  const meaning = roleOfHeader(header);
  if (isKnown(meaning)) return meaning;
  const areDays = filled >= 3 && days === looked && numbers < looked;
  return areDays ? { role: 'day', because: 'holds days', plainness: 0.1 } : meaning;
}

/** What a file is about, by the columns it has. */
function kindOf(named: readonly Named[], evidence: readonly ColumnEvidence[]): ReportKind {
  const roles = named.map(({ role }) => role);
  const has = (...wanted: ColumnRole[]) => wanted.some((role) => roles.includes(role));
  if (has('search term')) return 'search terms';
  if (has('keyword') && has('clicks', 'impressions', 'cost', 'conversions')) {
    // A column of texts that nobody named may hold the search terms: then a person has to say.
    const isOfKeywords = has('bid', 'impression share', 'quality') || !named.some(isUnnamedText(evidence));
    return isOfKeywords ? 'keywords' : 'search terms';
  }
  if (has('clicks', 'impressions', 'cost', 'conversions', 'day')) return 'search terms';
  if (has('keyword') && has('volume', 'low bid', 'high bid', 'competition')) return 'keyword ideas';
  const parts = (
    ['campaign', 'ad group', 'keyword', 'list', 'element', 'status', 'match type'] as const
  ).filter((role) => roles.includes(role));
  return parts.length >= 2 ? 'structure' : 'search terms';
}

function isUnnamedText(evidence: readonly ColumnEvidence[]): (column: Named) => boolean {
  return ({ index, header, role }) => {
    const { looked, numbers, days } = evidence[index]!;
    return role === null && !isKnown(roleOfHeader(header)) && 2 * Math.max(numbers, days) < looked;
  };
}

/**
 * A role goes to one column (but for further kinds of conversion), and only to one that a file of this kind has. Of several that bear its name the plainest
 * has it; of equals the one whose cells fit, then the shorter name, then the first.
 */
function shareRoles(
  named: readonly Named[],
  kind: ReportKind,
  evidence: readonly ColumnEvidence[],
): ReadColumn[] {
  const taken = new Map<ColumnRole, number>();
  const byFit = [...named].sort(
    (a, b) =>
      Number(b.isSaid) - Number(a.isSaid) ||
      fits(b, evidence) - fits(a, evidence) ||
      b.plainness - a.plainness ||
      a.header.length - b.header.length ||
      a.index - b.index,
  );
  for (const { role, index } of byFit) if (role !== null && !taken.has(role)) taken.set(role, index);
  return named.map(({ index, header, role, because, sample }): ReadColumn => {
    const column = { index, header, sample };
    if (role === null) return { ...column, role, because };
    if (role === 'conversions' && kind === 'keywords' && taken.get(role) !== index)
      return { ...column, role: SHARED_ROLE, because: 'another kind of conversion' };
    if (!(ROLES_OF_KIND[kind] as readonly ColumnRole[]).includes(role))
      return { ...column, role: null, because: OF_OTHER_KINDS[role] ?? 'not needed' };
    if (role !== SHARED_ROLE && taken.get(role) !== index)
      return { ...column, role: null, because: `another column is the ${role}` };
    return { ...column, role, because };
  });
}

/** 1 where the cells are of the kind that the role wants (or there are none), 0 where they are not. */
function fits({ role, index }: Named, evidence: readonly ColumnEvidence[]): number {
  const { looked, numbers, days } = evidence[index]!;
  if (role === null || looked === 0) return 1;
  if (role === 'day' || role === 'end date') return days * 2 >= looked ? 1 : 0;
  if (isNumberRole(role)) return numbers * 2 >= looked ? 1 : 0;
  return numbers * 2 > looked ? 0 : 1;
}

function readDayOrder(
  columns: readonly ReadColumn[],
  evidence: readonly ColumnEvidence[],
  decisions: ReadDecisions,
  questions: Question[],
): { dayOrder: DayOrder; isOrdered: boolean } {
  const column = columns.find((c) => c.role === 'day' || c.role === 'end date');
  if (!column) return { dayOrder: 'day first', isOrdered: false };
  const { order, firstUnsure } = evidence[column.index]!;
  const [first, second] = [order['day first'], order['month first']];
  const isOrdered = first + second + order.either > 0;
  if (isOrdered) column.shown = { ...order };
  const likely = first >= second ? 'day first' : 'month first';
  if (decisions.dayOrder) {
    column.because += `, ${decisions.dayOrder} as you said`;
    return { dayOrder: decisions.dayOrder, isOrdered };
  }
  if (order.either > 0 && !isClear(first, second)) {
    questions.push({
      code: 'day order',
      column: column.header,
      text: `“${firstUnsure}” in ${column.header}: does the day come first, or the month?`,
      options: ['day first', 'month first'],
    });
    return { dayOrder: likely, isOrdered };
  }
  if (first + second > 0) column.because += `, ${likely}`;
  return { dayOrder: likely, isOrdered };
}

/** Whether evidence speaks for one side: a few cells against very many are faults of those cells. */
export function isClear(a: number, b: number): boolean {
  return Math.max(a, b) > 10 * Math.min(a, b);
}

/** Codes of currencies in a column of which nobody knows what it is: are they those of the rows? */
function askForCurrencyColumn(
  columns: readonly ReadColumn[],
  evidence: readonly ColumnEvidence[],
  { roles = {} }: ReadDecisions,
  questions: Question[],
): void {
  const hasMoney = columns.some(({ role }) => role !== null && MONEY_ROLES.includes(role));
  if (!hasMoney || columns.some(({ role }) => role === 'currency')) return;
  for (const { index, header, role } of columns) {
    const { filled, currencies } = evidence[index]!;
    const codes = [...currencies.keys()].filter((code) => code.length === 3);
    const named = codes.reduce((sum, code) => sum + currencies.get(code)!, 0);
    if (role !== null || index in roles || filled === 0 || named < filled) continue;
    const some = codes.slice(0, 4).join(', ');
    const text = `${header} holds nothing but codes of currencies (${some}). Does it say what the money of each row is in?`;
    questions.push({ code: 'currency column', column: header, index, text, options: [] });
    return;
  }
}

/** What the money columns are in: by their headers, by a column of its own, by the marks in their cells. */
function currencyOf(
  headers: readonly string[],
  columns: readonly ReadColumn[],
  evidence: readonly ColumnEvidence[],
  wanted?: string,
): string | null {
  const votes = new Map<string, number>();
  const vote = (currency: string, weight: number) => votes.set(currency, (votes.get(currency) ?? 0) + weight);
  for (const { role, index } of columns) {
    if (role === null || (role !== 'currency' && !MONEY_ROLES.includes(role))) continue;
    const unit = /[([](.*?)[)\]]/.exec(headers[index] ?? '')?.[1];
    const inHeader = unit === undefined ? undefined : currencyIn(unit);
    if (inHeader) vote(inHeader, 1);
    for (const [currency, times] of evidence[index]!.currencies) vote(currency, times);
  }
  const [most] = [...votes].sort((a, b) => b[1] - a[1]);
  if (!most) return null;
  // Of several currencies, that of the account is meant where it is among them: the other rows are refused.
  if (wanted !== undefined && [...votes.keys()].some((one) => agreeOnCurrency(one, wanted))) return wanted;
  // A code says more than a mark that several share.
  const precise = [...votes.keys()].find((other) => other.length === 3 && agreeOnCurrency(other, most[0]));
  return precise ?? most[0];
}

/** Money may be written in cents or in micro-units; the header says so. */
function unitsOf(headers: readonly string[], columns: ReadColumn[]): Understanding['units'] {
  const units: Understanding['units'] = {};
  for (const column of columns) {
    if (!isNumberRole(column.role) || !MONEY_ROLES.includes(column.role)) continue;
    const header = headers[column.index] ?? '';
    if (/\bmicros?\b|micro-?units?\b|_micros\b/i.test(header)) units[column.role] = 1e-6;
    else if (/\bcents?\b|\bpence\b|_cents\b/i.test(header)) units[column.role] = 0.01;
    else continue;
    column.because += units[column.role] === 0.01 ? ', in cents' : ', in micro-units';
  }
  return units;
}

export function isNumberRole(role: ColumnRole | null): role is NumberRole {
  return (NUMBER_ROLES as readonly (ColumnRole | null)[]).includes(role);
}
