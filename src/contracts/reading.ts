import * as v from 'valibot';
import {
  MATCH_TYPES,
  NUMBER_ROLES,
  REPORT_KINDS,
  ROLES_OF_KIND,
  type ColumnRole,
  type Reading,
} from '@/core';
import { FIGURES, WindowSchema } from './common';

/** The core's reading of a file, as it crosses the wire. */

const ROLES: readonly ColumnRole[] = [...new Set(Object.values(ROLES_OF_KIND).flat())];
const mark = v.picklist(['.', ',']);
const dayOrder = v.picklist(['day first', 'month first']);
const match = v.picklist([...MATCH_TYPES, 'automatic']);
const text = v.string();
const amount = v.nullable(v.number());

/** A number for some of the keys. */
const countsOf = <const Keys extends readonly string[]>(keys: Keys) =>
  v.partial(v.strictObject(v.entriesFromList(keys, v.number())));

const ColumnSchema = v.strictObject({
  ...{ index: v.number(), header: text, role: v.nullable(v.picklist(ROLES)), because: text, sample: text },
  decimalMark: v.optional(mark),
  shown: v.optional(countsOf(['.', ',', 'day first', 'month first', 'either'])),
});

const ReportRowSchema = v.strictObject({
  ...{ line: v.number(), term: text, campaign: text, adGroup: text },
  ...{ keyword: v.nullable(text), match: v.nullable(match), day: text, ...FIGURES },
});

const KeywordRowSchema = v.strictObject({
  ...{ line: v.number(), campaign: text, adGroup: text, keyword: text, match: v.nullable(match), day: text },
  ...{ ...FIGURES, bidMicros: amount, impressionShare: amount, quality: amount },
  otherConversions: v.record(text, v.number()),
});

const IdeaRowSchema = v.strictObject({
  ...{ line: v.number(), text, volume: amount, volumeFrom: amount, volumeTo: amount },
  ...{ competition: v.nullable(text), lowBidMicros: amount, highBidMicros: amount },
});

const element = { line: v.number(), status: v.picklist(['live', 'paused', 'ended', 'removed']) };
const ElementRowSchema = v.variant('element', [
  v.strictObject({
    ...{ ...element, element: v.literal('campaign'), campaign: text, endDate: v.nullable(text) },
  }),
  v.strictObject({ ...element, element: v.literal('ad group'), campaign: text, adGroup: text }),
  v.strictObject({
    ...{ ...element, element: v.literal('keyword'), campaign: text, adGroup: text, text },
    ...{ match, bidMicros: amount },
  }),
  v.strictObject({
    ...{ ...element, element: v.literal('negative'), campaign: text, adGroup: text, list: text, text },
    match: v.picklist(MATCH_TYPES),
  }),
  v.strictObject({ ...element, element: v.literal('list'), list: text, campaign: text }),
]);

const nothing = v.strictTuple([]);
const QuestionSchema = v.variant('code', [
  v.strictObject({ code: v.literal('day order'), column: text, text, options: v.array(dayOrder) }),
  v.strictObject({ code: v.literal('decimal mark'), column: text, text, options: v.array(mark) }),
  v.strictObject({ code: v.literal('encoding'), column: v.null(), text, options: v.array(text) }),
  v.strictObject({
    code: v.literal('currency column'),
    column: text,
    index: v.number(),
    text,
    options: nothing,
  }),
  v.strictObject({
    ...{ code: v.literal('period'), column: v.null(), text, options: nothing },
    suggested: v.nullable(WindowSchema),
  }),
]);

const RejectedRowSchema = v.strictObject({
  line: v.number(),
  category: v.picklist([
    ...['too few cells', 'too many cells', 'no search term', 'no keyword', 'bad number', 'bad day'],
    ...['negative figure', 'other currency', 'too long', 'not text', 'total row'],
  ] as const),
  ...{ reason: text, raw: text },
});

export const ReadingSchema: v.GenericSchema<Reading, Reading> = v.strictObject({
  kind: v.picklist(REPORT_KINDS),
  ...{ encoding: v.nullable(text), separator: v.nullable(text), headerLine: v.nullable(v.number()) },
  columns: v.array(ColumnSchema),
  ...{ dayOrder: v.nullable(dayOrder), currency: v.nullable(text), days: v.nullable(WindowSchema) },
  rowsByDay: v.record(text, v.number()),
  ...{ rows: v.number(), sums: v.strictObject(FIGURES) },
  bounds: countsOf(NUMBER_ROLES),
  ...{ rejected: v.array(RejectedRowSchema), rejectedCount: v.number() },
  preview: v.array(v.union([ReportRowSchema, KeywordRowSchema, IdeaRowSchema, ElementRowSchema])),
  questions: v.array(QuestionSchema),
  isPartial: v.boolean(),
  error: v.nullable(
    v.strictObject({
      category: v.picklist([
        ...['empty', 'no header', 'no search term column', 'not a table', 'damaged', 'encrypted'],
        'undecided',
      ] as const),
      message: text,
    }),
  ),
});
