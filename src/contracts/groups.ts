import * as v from 'valibot';
import { fewOf } from './common';
import { IDEA_FILTERS, MOST_IDEAS, whole } from './research';

/** Groups of the ideas that stay in a research sheet (rules 16.3). */

export const GroupNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A group needs a name.'),
  v.maxLength(120, 'A name may hold 120 characters.'),
);

/** Which ideas are grouped, and how what is in no group yet is. */
export const GroupsQuerySchema = v.object({
  ...IDEA_FILTERS,
  smallest: whole('3'),
  longest: whole('2'),
  most: whole('40'),
  /** 0 to 100: few wide groups, or many narrow ones */
  fineness: whole('40'),
});
export type GroupsQuery = v.InferOutput<typeof GroupsQuerySchema>;

const IdeaSchema = v.strictObject({
  /** without what is struck out of the ideas */
  text: v.string(),
  /** the ideas that fold into it, where they are others than the text */
  keys: v.optional(v.array(v.string())),
  /** searches a month; null where nothing is known */
  volume: v.nullable(v.number()),
});
export type GroupedIdea = v.InferOutput<typeof IdeaSchema>;

const GroupSchema = v.strictObject({
  name: v.string(),
  /** whether it is only proposed: nobody took it yet */
  isProposed: v.boolean(),
  volume: v.nullable(v.number()),
  /** the highest; null where nobody bids */
  openingBidMicros: v.nullable(v.number()),
  /** the most searched first */
  ideas: v.array(IdeaSchema),
});
export type Group = v.InferOutput<typeof GroupSchema>;

export const GroupsViewSchema = v.strictObject({
  version: v.number(),
  /** those that people took, by name; then those that are proposed, by what they are worth */
  groups: v.array(GroupSchema),
  /** ideas that are in none, the most searched first */
  left: v.array(IdeaSchema),
});
export type GroupsView = v.InferOutput<typeof GroupsViewSchema>;

/** Keywords that are to stand in a new ad group. */
export const NewKeywordsSchema = v.strictObject({
  /** null for a campaign that is made */
  campaignId: v.nullable(v.string()),
  texts: v.pipe(v.array(v.string()), v.maxLength(10_000)),
});
/** Those that would be stopped there with what is in force and in the tray, and by what. */
export const StoppedKeywordsSchema = fewOf(v.strictObject({ text: v.string(), by: v.string() }));

/** Ideas, and the group in which they are from now on; null for none. */
const MoveSchema = v.strictObject({
  keys: v.pipe(v.array(v.string()), v.maxLength(MOST_IDEAS)),
  to: v.nullable(GroupNameSchema),
});
export type Move = v.InferOutput<typeof MoveSchema>;
export const MovesSchema = v.strictObject({ moves: v.pipe(v.array(MoveSchema), v.maxLength(MOST_IDEAS)) });
/** The moves that take them back. */
export const MovedSchema = v.strictObject({ back: v.array(MoveSchema) });
