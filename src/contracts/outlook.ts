import * as v from 'valibot';
import { NegativeTextSchema, PlaceSchema } from './common';

/**
 * What stopping is likely to bring in as many days as the window knows of (rules 13), in micro-units: what it stops, what of that running
 * ad groups take over, and what is left.
 */
const SUMS = {
  stoppedMicros: v.number(),
  netMicros: v.number(),
};

/** Where it is likely to come back, and what stops it there, too. */
const ComesBackSchema = v.strictObject({
  ...{ place: PlaceSchema, name: v.string(), costMicros: v.number() },
  negatives: v.array(NegativeTextSchema),
});

export const OutlookSchema = v.strictObject({
  ...{ days: v.number(), ...SUMS },
  /** between what amounts the net lies in nine cases of ten, by the chance of clicks alone */
  likely: v.tuple([v.number(), v.number()]),
  /** of what comes back, the share whose very texts ran there, 0..1; the rest is told by queries like them */
  seen: v.number(),
  /** the costliest places; what is too little to be named is in the net alone */
  back: v.array(ComesBackSchema),
});
export type Outlook = v.InferOutput<typeof OutlookSchema>;

export const TrayOutlookSchema = v.strictObject({
  ...OutlookSchema.entries,
  /** of each change that stops something */
  changes: v.array(v.strictObject({ id: v.number(), ...SUMS, variance: v.number() })),
});
export type TrayOutlook = v.InferOutput<typeof TrayOutlookSchema>;
