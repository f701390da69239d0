import * as v from 'valibot';
import {
  ENCODINGS,
  REPORT_KINDS,
  ROLES_OF_KIND,
  type ColumnRole,
  type ReadDecisions,
  type Reading,
  type ReportKind,
} from '@/core';
import { DaySchema } from './common';

/** All that a column can be taken for, whatever the file is about. */
export const ALL_ROLES: readonly ColumnRole[] = [...new Set(Object.values(ROLES_OF_KIND).flat())];

const index = v.pipe(v.string(), v.regex(/^\d{1,5}$/));
const mark = v.picklist(['.', ',']);
const readDecisions = {
  kind: v.optional(v.picklist(REPORT_KINDS)),
  encoding: v.optional(v.picklist(ENCODINGS)),
  separator: v.optional(v.pipe(v.string(), v.length(1))),
  dayOrder: v.optional(v.picklist(['day first', 'month first'])),
  decimalMark: v.optional(mark),
};

/** What a person corrects or decides of a reading; column indexes are keys. */
export const ReadDecisionsSchema = v.object({
  ...readDecisions,
  roles: v.optional(v.record(index, v.nullable(v.picklist(ALL_ROLES)))),
  headerLine: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000))),
  decimalMarks: v.optional(v.record(index, mark)),
  period: v.optional(
    v.pipe(
      v.object({ from: DaySchema, to: DaySchema }),
      v.check(({ from, to }) => from <= to, 'A period ends on its last day, not before its first.'),
    ),
  ),
}) satisfies v.GenericSchema<unknown, ReadDecisions>;

export const RecipeSchema = v.object({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'A recipe needs a name.'), v.maxLength(80)),
  headers: v.pipe(v.array(v.pipe(v.string(), v.maxLength(500))), v.minLength(1), v.maxLength(1_000)),
  decisions: ReadDecisionsSchema,
});

export const DailyFetchSchema = v.object({ daily: v.boolean() });

export type ReportFileView = {
  id: number;
  name: string;
  source: 'file' | 'platform';
  kind: ReportKind;
  sizeBytes: number;
  state:
    'uploaded' | 'waiting' | 'loading' | 'loaded' | 'cancelled' | 'failed' | 'taking back' | 'taken back';
  rowsRead: number;
  /** rows a second since loading began; null before */
  rowsPerSecond: number | null;
  outcome: {
    rows: number;
    rejected: number;
    added: number;
    replaced: number;
    newTerms: number;
    days: { from: string; to: string } | null;
    /** of a structure file: changes that were said to be done and that it shows, and how many of them as said */
    said?: { compared: number; there: number };
  } | null;
  error: string | null;
  createdAt: string;
};

export type ReadingAnswer = {
  file: ReportFileView;
  reading: Reading;
  /** decisions the reading was made by: a person's, or those of a recipe */
  decisions: ReadDecisions;
  /** the recipe that was used by itself, since the columns are the same */
  recipe: { id: number; name: string } | null;
  /** while a large file is read as a whole: the reading at hand is of its first rows */
  whole: { rowsRead: number } | null;
  /** a file that was loaded before, in whole: loading it again would change nothing */
  loadedBefore: { name: string; at: string } | null;
  /** all days that hold data, ascending */
  daysThere: string[];
  /** why it can not be loaded as it stands, or null */
  obstacle: string | null;
  currency: string;
};

export type IntakeView = {
  files: ReportFileView[];
  /** all days that hold data, ascending */
  daysThere: string[];
  fetchesDaily: boolean;
  /** bytes of a file that are taken in */
  largestFile: number;
  recipes: { id: number; name: string; columns: number }[];
};
