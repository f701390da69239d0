import * as v from 'valibot';

/** Micro-units; predicted is null where nothing was predicted when it was sent. */
const FIGURES = { days: v.number(), predictedMicros: v.nullable(v.number()), realMicros: v.number() };

const SavedSchema = v.strictObject({
  ...FIGURES,
  /** the first by the day on which it began to act; a week begins on a Monday */
  weeks: v.array(v.strictObject({ from: v.string(), ...FIGURES })),
});
export type SavedFigures = v.InferOutput<typeof SavedSchema>;

/** What everything that was sent saved, and each change. */
export const SavedSoFarSchema = v.strictObject({
  /** null until data reach a day on which something acts */
  soFar: v.nullable(
    v.strictObject({ ...SavedSchema.entries, since: v.string(), trays: v.number(), changes: v.number() }),
  ),
  changes: v.array(v.strictObject({ id: v.number(), ...FIGURES })),
});
export type SavedSoFar = v.InferOutput<typeof SavedSoFarSchema>;

const FormSchema = v.strictObject({ text: v.string(), costMicros: v.number() });

/** What one change saved, why that is not what was predicted, and its tray beside it. */
export const SavedOfChangeSchema = v.strictObject({
  ...SavedSchema.entries,
  /** the last day that counts: the newest with data, or that on which it was taken back */
  to: v.string(),
  isTakenBack: v.boolean(),
  /** some of what it stopped is open again: somebody removed it on the platform, or moved what it stood on */
  isGone: v.boolean(),
  /** between what amounts it lies in nine cases of ten if all goes as it was predicted; null where nothing was */
  likely: v.nullable(v.tuple([v.number(), v.number()])),
  /** what its terms would have cost, beyond what they were predicted to cost: the traffic of their places changed */
  trafficMicros: v.nullable(v.number()),
  /** what came back elsewhere, and what of it was predicted */
  ...{ backMicros: v.number(), backPredictedMicros: v.nullable(v.number()) },
  /** what is served all the same where it acts */
  stillMicros: v.number(),
  /** variants of its words that it lets through, costliest first, with what they cost since, and in as many days before */
  otherForms: v.strictObject({
    costMicros: v.number(),
    beforeMicros: v.number(),
    first: v.array(FormSchema),
  }),
  tray: v.strictObject({ ...SavedSchema.entries, changes: v.number(), sentDay: v.string() }),
});
export type SavedOfChange = v.InferOutput<typeof SavedOfChangeSchema>;
