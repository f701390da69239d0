import * as v from 'valibot';

/** What takes long enough to be told: reading days, holding keywords and negatives against each other, trying rules on the past. */
export const STAGES = ['days', 'conflicts', 'needless', 'duplicates', 'trial'] as const;
export type Stage = (typeof STAGES)[number];

/** How far a stage is; `of` counts the same as `done`, and is 0 where nothing was to be done. */
export const ProgressSchema = v.strictObject({
  stage: v.picklist(STAGES),
  done: v.number(),
  of: v.number(),
});
export type Progress = v.InferOutput<typeof ProgressSchema>;

/** What is being worked on for an account by the process that answers, the oldest request first. */
export const WorkSchema = v.strictObject({ work: v.array(ProgressSchema) });
