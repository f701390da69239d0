import * as v from 'valibot';
import { ChangeSchema, fewOf, NegativeTextSchema, PlaceSchema } from './common';

/** Fewer negatives in the place of those that stand somewhere, which stop the same. */

const SmallerLineSchema = v.strictObject({
  ...{ key: v.string(), place: PlaceSchema, placeName: v.string() },
  /** negatives that stand, and how many would do */
  ...{ before: v.number(), after: v.number() },
  /** distinct terms that they stop, over all days that are kept */
  terms: v.number(),
  /** how many stay, come and go */
  ...{ kept: v.number(), added: v.number(), removed: v.number() },
  /** of those that go, how many stop nothing that was ever served */
  idle: v.number(),
  /** of those that stay: what they stop is not known, since they stood before the data begin */
  fixed: v.number(),
});
export type SmallerLine = v.InferOutput<typeof SmallerLineSchema>;
/** Those that would shrink most first. */
export const SmallerViewSchema = v.strictObject({
  lines: v.array(SmallerLineSchema),
  /** negatives of all places of which nobody knows what they stop */
  fixed: v.number(),
});
export type SmallerView = v.InferOutput<typeof SmallerViewSchema>;

export const SmallerSetQuerySchema = v.object({
  place: v.picklist(['list', 'campaign', 'adGroup', 'account']),
  /** of the account: 0 */
  id: v.pipe(v.string(), v.regex(/^[\w-]{1,60}$/, 'This is no place.')),
});
/** One of them, with what differs. */
export const SmallerSetViewSchema = v.strictObject({
  key: v.string(),
  ...{ added: fewOf(NegativeTextSchema), removed: fewOf(NegativeTextSchema) },
  /** what must stay open and is stopped now: it is open afterwards */
  opened: fewOf(v.string()),
  /** queries to come, made of the negatives' own words, that would be stopped no more, or from then on */
  ...{ noMore: fewOf(v.string()), fromThenOn: fewOf(v.string()) },
  changes: v.array(ChangeSchema),
});
export type SmallerSetView = v.InferOutput<typeof SmallerSetViewSchema>;
