import * as v from 'valibot';
import type { MatchType } from '@/core';
import { MatchSchema, NamedSchema, NegativeTextSchema, WeightSchema } from './common';
import { HoldsSchema, ReachesSchema, StoppedSchema } from './lists';

/** The entries of one list, and what stands for the whole account: what each is, stops and hurts. */

const EntryLineSchema = v.strictObject({
  text: v.string(),
  /** null: a placement */
  match: v.nullable(MatchSchema),
  since: v.nullable(v.string()),
  /** against what counts as in force; said to be done: in force so far only by a person's word */
  drafted: v.nullable(v.picklist(['added', 'removed', 'said to be done'])),
  by: v.nullable(v.string()),
  /** the search term from which it was made */
  from: v.nullable(v.string()),
  /** live keywords that it shuts out or narrows where the list hangs */
  hurts: v.number(),
});
export type EntryLine = v.InferOutput<typeof EntryLineSchema>;

export const EntriesViewSchema = v.strictObject({
  list: v.strictObject({
    ...{ ...NamedSchema.entries, holds: HoldsSchema, isNew: v.boolean(), room: v.number() },
  }),
  /** where a change to it reaches: every campaign by name */
  reaches: ReachesSchema,
  entries: v.array(EntryLineSchema),
});
export type EntriesView = v.InferOutput<typeof EntriesViewSchema>;
/** What costs more to find of entries; by match type and text. */
export const EntriesHealthSchema = v.strictObject({
  entries: v.record(
    v.string(),
    v.strictObject({
      ...{ stopped: StoppedSchema, coveredBy: v.nullable(v.string()), covers: v.number() },
      missing: v.number(),
    }),
  ),
});
export type EntriesHealth = v.InferOutput<typeof EntriesHealthSchema>;
export const entryKey = (match: MatchType | null, text: string) => `${match ?? 'placement'} ${text}`;

export const AccountWideViewSchema = v.strictObject({
  ...{ used: v.number(), most: v.number() },
  entries: v.array(
    v.strictObject({
      ...{ ...NegativeTextSchema.entries, since: v.nullable(v.string()) },
      drafted: v.nullable(v.picklist(['removed', 'said to be done'])),
      ...{ coveredBy: v.nullable(v.string()), stops: WeightSchema },
    }),
  ),
});
export type AccountWideView = v.InferOutput<typeof AccountWideViewSchema>;
