import * as v from 'valibot';
import { ChangeSchema, DaysQuerySchema, fewOf, MatchSchema, WeightSchema } from './common';
import { LeftSchema, PileCountsSchema, PileSchema } from './knots';

/** Search terms that several ad groups serve, who should have each, and the negatives that see to it. */

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(500));

export const OverlapsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  pile: PileSchema,
  /** those that have so many clicks, all places together */
  clicks: v.optional(
    v.pipe(v.string(), v.regex(/^\d{1,6}$/, 'This is no number of clicks.'), v.transform(Number)),
    '2',
  ),
  between: v.optional(v.picklist(['ad groups', 'campaigns']), 'ad groups'),
});
export type OverlapsQuery = v.InferOutput<typeof OverlapsQuerySchema>;

const ServerSchema = v.strictObject({
  ...{ adGroupId: v.string(), campaignId: v.string(), adGroup: v.string(), campaign: v.string() },
  /** of the term there, in the window */
  ...{ clicks: v.number(), costMicros: v.number(), conversions: v.number(), valueMicros: v.number() },
  /** what one of its conversions can be expected to cost there (rules 5.4); null where no rate is known */
  expectedMicros: v.nullable(v.number()),
  /** match types of the keyword that says the term word for word there */
  saidAs: v.array(MatchSchema),
  /** ad groups among them whose campaigns it never meets (rules 5.3): nothing has to be stopped there */
  apartFrom: v.array(v.string()),
});
export type Server = v.InferOutput<typeof ServerSchema>;

const OverlapLineSchema = v.strictObject({
  term: v.string(),
  /** the one that should have it first */
  servers: v.array(ServerSchema),
  /** of the suggestion, 0..1 (rules 5.5) */
  sure: v.number(),
  left: LeftSchema,
});
export type OverlapLine = v.InferOutput<typeof OverlapLineSchema>;

export const OverlapsViewSchema = v.strictObject({
  days: v.number(),
  counts: PileCountsSchema,
  /** what the terms of the pile cost anywhere but where it should be, all of them together */
  elsewhereMicros: v.number(),
  /** those that cost most elsewhere first; no more than are read */
  lines: v.array(OverlapLineSchema),
});
export type OverlapsView = v.InferOutput<typeof OverlapsViewSchema>;

const id = v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'This is no ad group.'));
export const SeatingsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  term: text,
  keeps: id,
});

const SeatingSchema = v.strictObject({
  where: v.picklist(['ad groups', 'campaigns']),
  match: v.picklist(['exact', 'phrase']),
  changes: v.array(v.strictObject({ change: ChangeSchema, said: v.string() })),
  /** what it stops in the window beyond the tray, the term itself and others */
  ...{ stops: WeightSchema, alsoStops: fewOf(v.string()), also: WeightSchema },
  /** live keywords whose own text it stops */
  keywords: fewOf(v.string()),
  /** protected terms that it stops, the term itself not counted: the way is closed */
  hits: fewOf(v.string()),
});
export type SeatingLine = v.InferOutput<typeof SeatingSchema>;

/** The ways to give a term to one ad group alone. */
export const SeatingsViewSchema = v.strictObject({
  ...{ term: v.string(), keeps: v.string() },
  /** it must stay open: the negatives are put in with the reason that it stays open in one place */
  isProtected: v.boolean(),
  ways: v.array(SeatingSchema),
});
export type SeatingsView = v.InferOutput<typeof SeatingsViewSchema>;
