import * as v from 'valibot';
import type { Mend } from '@/core';
import {
  ChangeSchema,
  DaysQuerySchema,
  fewOf,
  NegativeInPlaceSchema,
  NegativeTextSchema,
  WeightSchema,
} from './common';
import { LeftSchema, PileCountsSchema, PileSchema, UnjudgedLineSchema } from './knots';

/** The knots of an account, and the mends of one. */

export const ConflictsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  shown: v.optional(v.picklist(['open', 'meant', 'left']), 'open'),
});
export type ConflictsShown = v.InferOutput<typeof ConflictsQuerySchema>['shown'];

const KeywordSchema = v.strictObject({
  ...NegativeTextSchema.entries,
  ...{ id: v.string(), adGroup: v.string(), campaign: v.string() },
});

/** Sums over terms in the days before the negative came into force; money in micro-units. */
const LostSchema = v.strictObject({
  ...{ terms: v.number(), clicks: v.number(), costMicros: v.number() },
  ...{ conversions: v.number(), valueMicros: v.number() },
});

const ConflictLineSchema = v.strictObject({
  key: v.string(),
  negative: NegativeInPlaceSchema,
  severity: v.picklist(['shut out', 'narrowed', 'costly', 'protected']),
  /** null where it hits protected terms alone */
  keyword: v.nullable(KeywordSchema),
  protected: fewOf(v.string()),
  /** the keyword for which the negative keeps its queries */
  seat: v.nullable(KeywordSchema),
  /** null: not known, since it came into force before the data begins */
  lost: v.nullable(LostSchema),
  left: LeftSchema,
});
export type ConflictLine = v.InferOutput<typeof ConflictLineSchema>;

export const ConflictsViewSchema = v.strictObject({
  /** as many days judge a negative */
  days: v.number(),
  counts: v.strictObject({
    /** inTray: mended by what is in the tray */
    ...{ open: v.number(), meant: v.number(), left: v.number(), inTray: v.number() },
  }),
  /** of all that are open: what is known of it */
  lost: v.strictObject({ conversions: v.number(), unknown: v.number() }),
  /** keywords and negatives of which nothing can be said */
  unjudged: fewOf(UnjudgedLineSchema),
  /** those that cost most first; no more than are read */
  lines: v.array(ConflictLineSchema),
});
export type ConflictsView = v.InferOutput<typeof ConflictsViewSchema>;

/** The sentence of a mend names so many negatives; more are counted in it. */
export const MOST_NAMED = 2;

export const MendsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  key: v.pipe(v.string(), v.minLength(1), v.maxLength(1_500)),
});
const MendLineSchema = v.strictObject({
  how: v.picklist(['longer', 'narrower', 'taken down', 'removed', 'paused'] satisfies Mend['how'][]),
  said: v.string(),
  changes: v.array(ChangeSchema),
  /** terms that it would open, and what they brought in the days before the negative came into force; null: not known */
  opens: v.nullable(
    v.strictObject({
      ...{ terms: v.number(), conversions: v.number(), costMicros: v.number() },
      /** what those among them cost that did not convert */
      wastedMicros: v.number(),
    }),
  ),
  /** of the terms that the negative stops, those that stay stopped */
  stillStops: v.number(),
  /** whether everything that has to pass does, by this mend */
  letsPass: v.boolean(),
  isProposed: v.boolean(),
});
export type MendLine = v.InferOutput<typeof MendLineSchema>;

export const MendsViewSchema = v.strictObject({
  key: v.string(),
  /** the day from which the negative is in force there; null: not known */
  since: v.nullable(v.string()),
  /** campaigns on which the list of the negative hangs; null where it stands in none, or hangs on the whole account */
  hangsOn: v.nullable(v.number()),
  /** what has to pass */
  passing: fewOf(v.string()),
  /** terms that the negative stops, wherever it is in force, over all days that are kept */
  stops: v.number(),
  mends: v.array(MendLineSchema),
});
export type MendsView = v.InferOutput<typeof MendsViewSchema>;

const NeedlessLineSchema = v.strictObject({
  ...{ key: v.string(), negative: NegativeInPlaceSchema, coveredBy: NegativeInPlaceSchema },
  /** whether it holds whatever ad groups are added */
  isLasting: v.boolean(),
  left: LeftSchema,
});
export type NeedlessLine = v.InferOutput<typeof NeedlessLineSchema>;

export const PileQuerySchema = v.object({ ...DaysQuerySchema.entries, pile: PileSchema });

export const NeedlessViewSchema = v.strictObject({
  counts: PileCountsSchema,
  lines: v.array(NeedlessLineSchema),
  /** twins in one place, of which a platform takes away both */
  twins: v.number(),
  /** what was tried, all lines gone: ad groups, served queries, made ones, and gates that would answer otherwise */
  proof: v.strictObject({
    ...{ adGroups: v.number(), real: v.number(), generated: v.number(), differences: v.number() },
  }),
});
export type NeedlessView = v.InferOutput<typeof NeedlessViewSchema>;

const MisspeltLineSchema = v.strictObject({
  ...{ key: v.string(), negative: NegativeInPlaceSchema, meant: v.string() },
  /** what the right one would stop there in the window, beyond what is stopped */
  would: WeightSchema,
  /** protected terms that it would stop */
  hits: fewOf(v.string()),
  left: LeftSchema,
});
export type MisspeltLine = v.InferOutput<typeof MisspeltLineSchema>;

/** Negatives that stop nothing in any data, and are close to words that occur. */
export const MisspeltViewSchema = v.strictObject({
  counts: PileCountsSchema,
  lines: v.array(MisspeltLineSchema),
});
export type MisspeltView = v.InferOutput<typeof MisspeltViewSchema>;
