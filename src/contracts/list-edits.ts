import * as v from 'valibot';
import {
  fewOf,
  ListNameSchema,
  MatchSchema,
  PlaceSchema,
  StoredNumberSchema,
  TouchedSchema,
  WeightSchema,
} from './common';
import { AddressSchema as address, EntriesSchema as entries, IdSchema as id, ReachesSchema } from './lists';

/** What can be done to lists as one, and what it comes to. */

const target = v.union([v.object({ id }), v.object({ make: ListNameSchema })]);

/** Something that is done to lists as one; it comes to changes in the tray. */
export const ListEditSchema = v.variant('do', [
  v.object({
    do: v.literal('paste'),
    into: target,
    holds: v.optional(v.picklist(['words', 'placements']), 'words'),
    text: v.pipe(v.string(), v.maxLength(5_000_000)),
    match: v.optional(MatchSchema),
  }),
  v.object({ do: v.literal('move'), list: id, into: target, entries, keep: v.boolean() }),
  v.object({ do: v.literal('match'), list: id, entries, match: MatchSchema }),
  v.object({ do: v.literal('remove'), list: id, entries }),
  v.object({ do: v.literal('remove placements'), list: id, addresses: v.array(address) }),
  v.object({ do: v.literal('split'), list: id, themes: v.pipe(v.array(v.string()), v.minLength(1)) }),
  v.object({ do: v.literal('merge'), list: id, from: id }),
  v.object({ do: v.literal('drop needless'), list: id }),
  v.object({ do: v.literal('remove list'), list: id }),
  v.object({ do: v.literal('rest'), list: id, campaign: id, without: entries }),
  v.object({
    do: v.literal('gather'),
    name: ListNameSchema,
    entries,
    from: v.pipe(v.array(PlaceSchema), v.minLength(1), v.maxLength(5_000)),
  }),
  v.object({ do: v.literal('put back'), list: id, version: StoredNumberSchema }),
  v.object({ do: v.literal('undo version'), version: StoredNumberSchema }),
]);
export type ListEdit = v.InferOutput<typeof ListEditSchema>;

export const EditRequestSchema = v.object({
  edit: ListEditSchema,
  forcedBecause: v.optional(v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500))),
});

/** What an edit would come to, before it is put in the tray. */
export const EditPlanSchema = v.strictObject({
  /** in one sentence */
  said: v.string(),
  changes: v.number(),
  /** a few of them in words */
  some: v.array(v.string()),
  /** what lines were not taken, and why */
  refused: fewOf(v.strictObject({ line: v.number(), raw: v.string(), reason: v.string() })),
  twice: v.number(),
  /** those that stand there already */
  already: v.number(),
  folded: fewOf(v.strictObject({ address: v.string(), under: v.string() })),
  ...{ stops: WeightSchema, reopens: WeightSchema, touched: TouchedSchema },
  protectedTerms: fewOf(v.string()),
  /** campaigns that it reaches */
  reaches: ReachesSchema,
  /** places that would hold more than they may, in words; with them it can not be sent */
  over: v.array(v.string()),
  /** ad groups in which what is in force was compared before and after, for a plan that is to change no answer */
  proof: v.nullable(v.strictObject({ adGroups: v.number(), same: v.boolean(), said: v.string() })),
});
export type EditPlan = v.InferOutput<typeof EditPlanSchema>;
export const EditOutcomeSchema = v.strictObject({
  ...{ changeIds: v.array(v.number()), said: v.string() },
  heldBack: v.nullable(v.strictObject({ count: v.number(), said: v.string() })),
  refused: fewOf(v.string()),
});
export type EditOutcome = v.InferOutput<typeof EditOutcomeSchema>;
