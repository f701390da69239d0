import * as v from 'valibot';
import { DaySchema, WindowSchema } from './common';

/** What was done with an account in a range of days, told to the advertiser it belongs to. */
export const ForClientSchema = v.strictObject({
  window: WindowSchema,
  /** sums of the window; micro-units */
  ...{ costMicros: v.number(), returnedMicros: v.number(), conversions: v.number(), valueMicros: v.number() },
  days: v.array(
    v.strictObject({
      ...{ day: DaySchema, returnedMicros: v.number(), openMicros: v.number(), stoppedMicros: v.number() },
    }),
  ),
  /** what all stops that acted saved in the window, less what came back; null while no data tell */
  savedMicros: v.nullable(v.number()),
  /** the stops that acted in the window or were sent in it, by what they saved in it */
  stops: v.array(
    v.strictObject({
      ...{ changeId: v.number(), said: v.string(), why: v.nullable(v.string()), sentDay: DaySchema },
      /** the day on which it was taken back */
      until: v.nullable(DaySchema),
      /** null until data come */
      savedMicros: v.nullable(v.number()),
    }),
  ),
  /** terms that a person keeps open, and what they brought in the window */
  kept: v.array(
    v.strictObject({
      ...{ text: v.string(), note: v.nullable(v.string()), by: v.string() },
      ...{ costMicros: v.number(), conversions: v.number() },
    }),
  ),
});
export type ForClient = v.InferOutput<typeof ForClientSchema>;
