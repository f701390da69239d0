import * as v from 'valibot';
import { DaySchema, DaysSchema } from './common';

/** What all kinds of knots have in common: they are left with a reason, and come back when they are otherwise. */

export const KNOT_KINDS = ['conflict', 'needless', 'misspelt', 'duplicate', 'overlap'] as const;
export type KnotKind = (typeof KNOT_KINDS)[number];
/** What can be left like a knot, and is none: a term that is not to be promoted, an exact keyword that misses its target. */
export const LEFT_KINDS = [...KNOT_KINDS, 'promotion', 'keyword'] as const;
export type LeftKind = (typeof LEFT_KINDS)[number];

const KnotKeySchema = v.pipe(v.string(), v.minLength(1), v.maxLength(1_500));

/** Who left a knot, when, why and until when; null where it is not left. */
export const LeftSchema = v.nullable(
  v.strictObject({ why: v.string(), until: v.nullable(v.string()), by: v.string(), at: v.string() }),
);
export type Left = v.InferOutput<typeof LeftSchema>;

/** Knots that wait for a decision, or those that somebody left. */
export const PILES = ['open', 'left'] as const;
export const PileSchema = v.optional(v.picklist(PILES), 'open');
export type Pile = (typeof PILES)[number];
/** How many lie in each pile. */
export const PileCountsSchema = v.strictObject({ open: v.number(), left: v.number() });

/** What is listed, since nothing can be said of it. */
export const UnjudgedLineSchema = v.strictObject({ text: v.string(), where: v.string(), why: v.string() });
export type UnjudgedLine = v.InferOutput<typeof UnjudgedLineSchema>;

const MoreClicksSchema = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000));

export const LeaveKnotSchema = v.strictObject({
  ...{ kind: v.picklist(LEFT_KINDS), key: KnotKeySchema },
  /** by which it was found */
  days: DaysSchema,
  why: v.pipe(v.string(), v.trim(), v.minLength(3, 'Say why it is left.'), v.maxLength(400)),
  /** the last day on which it is left; null: until it is otherwise */
  until: v.nullable(DaySchema),
  /** of a keyword: it is left until it has had so many more clicks */
  moreClicks: v.optional(MoreClicksSchema),
});
export const KnotSchema = v.strictObject({ kind: v.picklist(LEFT_KINDS), key: KnotKeySchema });
/** The knot for which a change is made, and the days by which it was found: it is looked at again before anything is done. */
export const MadeForSchema = v.object({ ...KnotSchema.entries, days: DaysSchema });
export type MadeFor = v.InferOutput<typeof MadeForSchema>;
/** As a screen asks for it. */
export type MadeForRequest = v.InferInput<typeof MadeForSchema>;
/** How a knot had been left that is taken up again. */
export const KnotBackSchema = v.strictObject({
  ...{ why: v.string(), until: v.nullable(v.string()) },
  moreClicks: v.optional(v.number()),
});

const SumsSchema = v.strictObject({
  /** that are open or left */
  count: v.number(),
  /** micro-units, in as many days as were looked at */
  costMicros: v.number(),
  conversions: v.number(),
});
/** What a person learns by looking at the knots of an account. */
export const KnotsLookSchema = v.strictObject({
  /** knots that came since the look before, by kind; none at the first look */
  fresh: v.strictObject(v.entriesFromList(KNOT_KINDS, v.array(v.string()))),
  /** how it stood on each day on which it was noted, oldest first */
  days: v.array(
    v.strictObject({
      day: v.string(),
      ...v.partial(v.object(v.entriesFromList(KNOT_KINDS, SumsSchema))).entries,
    }),
  ),
});
export type KnotsLook = v.InferOutput<typeof KnotsLookSchema>;
