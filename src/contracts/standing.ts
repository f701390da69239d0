import * as v from 'valibot';
import { DaySchema, StoredNumberSchema } from './common';

export const STANDING_KINDS = ['negative', 'exclusion', 'placement', 'list', 'hanging'] as const;

export const StandingQuerySchema = v.object({
  /** the day at whose end the account is looked at */
  day: DaySchema,
  /** what differs from now, or all that stood then */
  show: v.optional(v.picklist(['differs', 'all']), 'differs'),
  kind: v.optional(v.picklist(STANDING_KINDS)),
  /** letters in what it is and where */
  find: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
});
export type StandingQuery = v.InferOutput<typeof StandingQuerySchema>;

const StandingLineSchema = v.strictObject({
  id: v.number(),
  kind: v.picklist(STANDING_KINDS),
  is: v.picklist(['same', 'gone', 'new', 'renamed']),
  /** the element, and where it stands, in words */
  ...{ what: v.string(), where: v.string() },
  /** the first day on which it stood; null where that was before Gate Post knew the account */
  from: v.nullable(v.string()),
  /** the first day on which it did not stand any more */
  until: v.nullable(v.string()),
});
export type StandingLine = v.InferOutput<typeof StandingLineSchema>;

export const StandingViewSchema = v.strictObject({
  day: v.string(),
  /** the account's day in progress, and the first day from which on what was taken away is known */
  ...{ today: v.string(), knownFrom: v.string() },
  /** the first of them */
  lines: v.array(StandingLineSchema),
  /** of all that the filters let through */
  ...{ gone: v.number(), isNew: v.number(), renamed: v.number(), same: v.number() },
});
export type StandingView = v.InferOutput<typeof StandingViewSchema>;

/** Elements that are to stand again as they did on a day. */
export const PutBackSchema = v.object({
  day: DaySchema,
  ids: v.pipe(
    v.array(StoredNumberSchema),
    v.minLength(1, 'Choose what is to be put back.'),
    v.maxLength(10_000),
  ),
  /** some of it would stop protected terms, and is wanted for this reason */
  forcedBecause: v.optional(v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500))),
});

export const PutBackOutcomeSchema = v.strictObject({
  said: v.string(),
  /** what was put in the tray, so that it can be taken out again */
  changeIds: v.array(v.number()),
  /** how many would stop protected terms, and wait for a reason */
  heldBack: v.number(),
});
