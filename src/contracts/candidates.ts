import * as v from 'valibot';
import { fewOf, MatchSchema, TouchedSchema, WeightSchema } from './common';
import { whole } from './research';

/** Ready negatives of a research sheet, from briefs and starter packs: checked against the account before they stop anything. */

export const CandidatesQuerySchema = v.object({
  match: v.optional(MatchSchema, 'phrase'),
  source: v.optional(v.pipe(v.string(), v.digits(), v.transform(Number))),
  most: whole('5000'),
});

const CandidateSchema = v.strictObject({
  /** as it is written first */
  text: v.string(),
  /** all forms of its words that the sources gave, that one first: a negative each */
  forms: v.array(v.string()),
  /** sources that gave it */
  sources: v.array(v.number()),
  /** open ideas of the sheet that it would stop */
  ideas: v.number(),
  /** what it would have stopped in the account, wherever it ran */
  weight: WeightSchema,
  ...{ keywords: TouchedSchema, protected: fewOf(v.string()) },
  /** why no platform takes it; null where it does */
  refusal: v.nullable(v.string()),
});
export type Candidate = v.InferOutput<typeof CandidateSchema>;

export const CandidatesViewSchema = v.strictObject({
  version: v.number(),
  /** those that hit something after the others; then by cost */
  candidates: v.array(CandidateSchema),
  total: v.number(),
  /** that something in force, or in the tray, stops already */
  stopped: v.number(),
});
export type CandidatesView = v.InferOutput<typeof CandidatesViewSchema>;
