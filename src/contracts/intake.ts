import * as v from 'valibot';
import { COLUMN_ROLES, type Reading } from '@/core';
import { DaySchema } from './common';

/** What a person corrects or decides of a reading; column indexes are keys. */
export const ReadOptionsSchema = v.object({
  roles: v.optional(v.record(v.pipe(v.string(), v.regex(/^\d{1,5}$/)), v.nullable(v.picklist(COLUMN_ROLES)))),
  dayOrder: v.optional(v.picklist(['day first', 'month first'])),
  decimalMark: v.optional(v.picklist(['.', ','])),
  day: v.optional(DaySchema),
});
export type ReadOptionsInput = v.InferOutput<typeof ReadOptionsSchema>;

export type ReportFileView = {
  id: number;
  name: string;
  source: 'file' | 'platform';
  sizeBytes: number;
  state: 'uploaded' | 'waiting' | 'loading' | 'loaded' | 'cancelled' | 'failed';
  rowsRead: number;
  outcome: {
    rows: number;
    rejected: number;
    added: number;
    replaced: number;
    newTerms: number;
    days: { from: string; to: string } | null;
  } | null;
  error: string | null;
  createdAt: string;
};

/** A file that was loaded before, in whole: loading it again would change nothing. */
export type ReadingAnswer = {
  file: ReportFileView;
  reading: Reading;
  loadedBefore: { name: string; at: string } | null;
  /** days of the file that hold data already */
  daysThere: number;
  currency: string;
};
