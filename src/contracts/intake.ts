import * as v from 'valibot';
import { ENCODINGS, REPORT_KINDS, ROLES_OF_KIND, type ColumnRole, type ReadDecisions } from '@/core';
import { DaySchema, WindowSchema } from './common';
import { ReadingSchema } from './reading';

/** All that a column can be taken for, whatever the file is about. */
export const ALL_ROLES: readonly ColumnRole[] = [...new Set(Object.values(ROLES_OF_KIND).flat())];

const index = v.pipe(v.string(), v.regex(/^\d{1,5}$/));
const mark = v.picklist(['.', ',']);
const readDecisions = {
  kind: v.optional(v.picklist(REPORT_KINDS)),
  encoding: v.optional(v.pipe(v.string(), v.picklist(ENCODINGS))),
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

const ReportFileSchema = v.strictObject({
  id: v.number(),
  name: v.string(),
  source: v.picklist(['file', 'platform']),
  kind: v.picklist(REPORT_KINDS),
  sizeBytes: v.number(),
  state: v.picklist([
    ...['uploaded', 'waiting', 'loading', 'loaded', 'cancelled', 'failed', 'taking back', 'taken back'],
  ] as const),
  rowsRead: v.number(),
  /** rows a second since loading began; null before */
  rowsPerSecond: v.nullable(v.number()),
  outcome: v.nullable(
    v.strictObject({
      ...{ rows: v.number(), rejected: v.number(), added: v.number(), replaced: v.number() },
      ...{ newTerms: v.number(), days: v.nullable(WindowSchema) },
      /** of a structure file: changes that were said to be done and that it shows, and how many of them as said */
      said: v.optional(v.strictObject({ compared: v.number(), there: v.number() })),
    }),
  ),
  error: v.nullable(v.string()),
  createdAt: v.string(),
  /** whether the file itself is kept no longer: it can not be read again */
  isGone: v.boolean(),
});
export type ReportFileView = v.InferOutput<typeof ReportFileSchema>;
export const ReportFilesSchema = v.strictObject({ files: v.array(ReportFileSchema) });
/** The file that was fetched; null where the platform has no newer day. */
export const FetchedSchema = v.strictObject({ fileId: v.nullable(v.number()) });

export const ReadingAnswerSchema = v.strictObject({
  file: ReportFileSchema,
  reading: ReadingSchema,
  /** decisions the reading was made by: a person's, or those of a recipe */
  decisions: v.object({ ...ReadDecisionsSchema.entries, encoding: v.optional(v.string()) }),
  /** the recipe that was used by itself, since the columns are the same */
  recipe: v.nullable(v.strictObject({ id: v.number(), name: v.string() })),
  /** while a large file is read as a whole: the reading at hand is of its first rows */
  whole: v.nullable(v.strictObject({ rowsRead: v.number() })),
  /** a file that was loaded before, in whole: loading it again would change nothing */
  loadedBefore: v.nullable(v.strictObject({ name: v.string(), at: v.string() })),
  /** all days that hold data, ascending */
  daysThere: v.array(v.string()),
  /** why it can not be loaded as it stands, or null */
  obstacle: v.nullable(v.string()),
  currency: v.string(),
});
export type ReadingAnswer = v.InferOutput<typeof ReadingAnswerSchema>;

export const IntakeViewSchema = v.strictObject({
  files: v.array(ReportFileSchema),
  /** all days that hold data, ascending */
  daysThere: v.array(v.string()),
  fetchesDaily: v.boolean(),
  /** bytes of a file that are taken in */
  largestFile: v.number(),
  recipes: v.array(v.strictObject({ id: v.number(), name: v.string(), columns: v.number() })),
});
export type IntakeView = v.InferOutput<typeof IntakeViewSchema>;
