import * as v from 'valibot';
import { NegativeInPlaceSchema } from './common';

export const GateQuerySchema = v.object({
  query: v.optional(
    v.pipe(
      v.string(),
      v.transform((text) => text.slice(0, 1_000)),
    ),
    '',
  ),
});

/** Gate check: whether a query gets through, where, and what stops it. */
export const GateAnswerSchema = v.strictObject({
  /** the query as it is compared; '' when it holds no word */
  text: v.string(),
  ...{ adGroups: v.number(), open: v.number() },
  /** ad groups that are open now and that the tray would stop; and the other way round */
  ...{ stoppedByTray: v.number(), openedByTray: v.number() },
  stoppers: v.array(
    v.strictObject({
      ...NegativeInPlaceSchema.entries,
      /** ad groups in which it stops the query */
      adGroups: v.number(),
      campaigns: v.array(v.string()),
      /** accepted: by the platform, and not read back yet; in the tray: drafted, sent or handed over */
      state: v.picklist(['in force', 'accepted', 'said to be done', 'in the tray']),
    }),
  ),
  campaigns: v.array(
    v.strictObject({
      ...{ id: v.string(), name: v.string(), status: v.string(), open: v.number(), stopped: v.number() },
      ...{ stoppedIn: v.array(v.string()), openIn: v.array(v.string()) },
    }),
  ),
});
export type GateAnswer = v.InferOutput<typeof GateAnswerSchema>;
