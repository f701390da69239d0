import * as v from 'valibot';
import { CHANGE_KINDS, type NegativeText } from '@/core';
import {
  ChangeSchema,
  DaySchema,
  DaysSchema,
  fewOf,
  NegativeTextSchema,
  PlaceSchema,
  StoredNumberSchema,
  TouchedSchema,
  WeightSchema,
  WindowSchema,
  type Few,
} from './common';
import { DaysTextSchema } from './days';
import { MadeForSchema } from './knots';

export const DraftRequestSchema = v.object({
  changes: v.pipe(
    v.array(
      v.object({
        change: ChangeSchema,
        why: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(500)))),
        /** stops protected terms in spite of it, for this reason */
        forcedBecause: v.optional(
          v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500)),
        ),
        /** the search term from which a negative is made */
        from: v.optional(v.pipe(v.string(), v.maxLength(500))),
        knot: v.optional(MadeForSchema),
      }),
    ),
    v.minLength(1),
    v.maxLength(10_000),
  ),
  days: DaysSchema,
});

/** Changes of a tray that was given out: those named, or all that can be taken back. */
export const BackRequestSchema = v.object({
  changeIds: v.optional(v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000))),
});

export const RemoveRequestSchema = v.object({
  changeIds: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000)),
});

/** What of the tray is sent, and when; all of it and at once where nothing is said. */
export const SendRequestSchema = v.object({
  /** the others stay in the tray */
  only: v.optional(v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000))),
  /** when it is to begin */
  at: v.optional(v.pipe(v.string(), v.isoTimestamp('Name a day and a time.'))),
});

/** Until when stops in the tray are to act. */
export const EndDateSchema = v.object({
  changeIds: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000)),
  /** the first day on which they do not act any more; null for no end */
  endsOn: v.nullable(DaySchema),
});
export const EndDateOutcomeSchema = v.strictObject({
  was: v.array(v.strictObject({ changeId: v.number(), endsOn: v.nullable(v.string()) })),
});

/** What a person says of a change in the tray. */
export const CommentSchema = v.object({
  changeId: StoredNumberSchema,
  text: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say something.'), v.maxLength(500)),
});

/** What became of one change that was put in the tray. */
export const DraftOutcomeSchema = v.variant('outcome', [
  /** its id is 0 where a later change of the same request took it out again */
  v.strictObject({
    ...{ outcome: v.literal('drafted'), changeId: v.number(), change: ChangeSchema, said: v.string() },
    /** what is to be known of its place */
    heed: v.nullable(v.string()),
  }),
  /** its opposite was in the tray; both are gone now */
  v.strictObject({ outcome: v.literal('cancelled'), removed: ChangeSchema, said: v.string() }),
  v.strictObject({ outcome: v.literal('already there'), said: v.string() }),
  v.strictObject({ outcome: v.literal('refused'), said: v.string() }),
  /** it would stop protected terms */
  v.strictObject({ outcome: v.literal('held back'), said: v.string(), terms: fewOf(v.string()) }),
]);
export type DraftOutcome = v.InferOutput<typeof DraftOutcomeSchema>;
export const DraftOutcomesSchema = v.strictObject({ outcomes: v.array(DraftOutcomeSchema) });
/** What was taken out of the tray, so that it can be put back. */
export const RemovedChangesSchema = v.strictObject({ removed: v.array(ChangeSchema) });
export const SentOutcomeSchema = v.strictObject({ setId: v.number() });

const TrayChangeSchema = v.strictObject({
  ...{ id: v.number(), kind: v.picklist(CHANGE_KINDS), change: ChangeSchema, said: v.string() },
  /** what it stops beyond the changes before it, and what it opens again */
  ...{ stops: WeightSchema, reopens: WeightSchema },
  ...{ by: v.string(), why: v.nullable(v.string()) },
  /** the first day on which it does not act any more */
  endsOn: v.nullable(v.string()),
  /** what people said of it, oldest first */
  comments: v.array(v.strictObject({ id: v.number(), by: v.string(), text: v.string() })),
  /** the same for all that one action put in the tray */
  action: v.string(),
  ...{ forcedBecause: v.nullable(v.string()), failedBefore: v.nullable(v.string()) },
  touched: TouchedSchema,
  /** of a list: where it hangs, by name */
  reaches: v.nullable(v.string()),
  /** what is to be known of its place: that it is paused, or known only from a report */
  placeNote: v.nullable(v.string()),
  /** protected terms that it would stop, with no reason given: it can not be sent so */
  heldBackBy: fewOf(v.string()),
});
export type TrayChange = v.InferOutput<typeof TrayChangeSchema>;

const SentStateSchema = v.strictObject({
  setId: v.number(),
  /** handed over and said to be done: of an account without a platform */
  state: v.picklist(['sending', 'handed over', 'said to be done', 'confirmed', 'partly failed']),
  ...{ sentBy: v.nullable(v.string()), sentAt: v.nullable(v.string()) },
  ...{ total: v.number(), answered: v.number() },
  /** the first of those that nobody has answered or shown yet */
  waiting: v.array(v.strictObject({ id: v.number(), said: v.string() })),
  confirmed: v.number(),
  failed: v.array(v.strictObject({ said: v.string(), reason: v.string() })),
  /** how many of those that failed can be put back in the tray: they were not found as they should be */
  lost: v.number(),
  trouble: v.nullable(v.string()),
  /** a person has stopped it: what is not answered goes back to the tray */
  isStopped: v.boolean(),
  /** when sending is to begin, as long as it has not */
  sendAt: v.nullable(v.string()),
});
export type SentState = v.InferOutput<typeof SentStateSchema>;

const RoomSchema = v.strictObject({
  ...{ place: v.string(), at: PlaceSchema },
  what: v.picklist(['negatives', 'lists', 'placements']),
  ...{ used: v.number(), most: v.number() },
  /** over the limit: what is needless there */
  couldDrop: fewOf(NegativeTextSchema),
});

export const TrayQuerySchema = v.object({
  days: v.optional(DaysTextSchema),
  /** `told` of the answer before: the changes that it knows are left out of the next, where nothing is told otherwise by now */
  known: v.optional(v.pipe(v.string(), v.maxLength(100))),
});

export const TrayViewSchema = v.strictObject({
  window: WindowSchema,
  /** of the draft, in order, after as many as are `kept` of those that the asker knows */
  ...{ changes: v.array(TrayChangeSchema), kept: v.number(), told: v.string() },
  /** all changes together, each term once */
  ...{ stops: WeightSchema, reopens: WeightSchema },
  /** how full the places are that the changes add to, once they are sent */
  room: v.array(RoomSchema),
  /** spend of each day of the window, split by what it brought and what the draft stops */
  days: v.array(
    v.strictObject({
      ...{ day: DaySchema, returnedMicros: v.number(), openMicros: v.number(), stoppedMicros: v.number() },
    }),
  ),
  /** what was sent or handed over and is not settled, the newest first; else what was settled last */
  sent: v.array(SentStateSchema),
});
export type TrayView = v.InferOutput<typeof TrayViewSchema>;

/** What is found of the tray when somebody is about to send it. */
export const TrayCheckSchema = v.strictObject({
  /** negatives that stop nothing that another one does not stop for good or today, and which that is */
  needless: v.array(v.strictObject({ changeId: v.number(), coveredBy: v.string() })),
  /** changes that can not be made any more, and why */
  gone: v.array(v.strictObject({ changeId: v.number(), said: v.string(), reason: v.string() })),
});
export type TrayCheck = v.InferOutput<typeof TrayCheckSchema>;

/** What is needless where a limit is passed, as a sentence; nothing where there is none. */
export function sayCouldDrop({ count, first }: Few<NegativeText>): string {
  if (count === 0) return '';
  const named = first.map(({ text, match }) => `“${text}” (${match})`).join(', ');
  const more = count > first.length ? ` and ${count - first.length} more` : '';
  return ` Needless there, since others stop the same: ${named}${more}.`;
}
