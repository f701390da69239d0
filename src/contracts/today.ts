import * as v from 'valibot';
import { DaySchema, FIGURES, WindowSchema } from './common';

/** Today: what flowed, what it cost without return, what stopping saved, what is new, and what to do next. Micro-units. */

/** Why a tray saved another amount than was predicted; the greatest part of the difference. */
export const DIFFERENCES = [
  'as predicted',
  'more traffic',
  'less traffic',
  'more came back elsewhere',
  'less came back elsewhere',
  'still served there',
] as const;

const TrayOfTodaySchema = v.strictObject({
  /** A, B, C … in the order in which they were sent */
  letter: v.string(),
  ...{ setId: v.number(), sentDay: DaySchema, changes: v.number() },
  /** the entry of the ledger that tells of its first change */
  ...{ entry: v.nullable(v.number()), days: v.number() },
  ...{ predictedMicros: v.nullable(v.number()), realMicros: v.number() },
  difference: v.nullable(v.picklist(DIFFERENCES)),
});

export const TodaySchema = v.strictObject({
  window: WindowSchema,
  /** the account's day in progress */
  today: DaySchema,
  /** of the days looked at: what went to terms that returned something, and what to others */
  days: v.array(v.strictObject({ day: DaySchema, returnedMicros: v.number(), openMicros: v.number() })),
});
export type Today = v.InferOutput<typeof TodaySchema>;

/** Stops that end soon, the next first. */
export const EndingSchema = v.strictObject({
  ending: v.array(v.strictObject({ changeId: v.number(), said: v.string(), endsOn: DaySchema })),
});
export type Ending = v.InferOutput<typeof EndingSchema>;

/** What stopping saved, as it is reckoned (rules 13.4). */
export const SavedOfTodaySchema = v.strictObject({
  /** null until data reach a day on which something acts */
  soFar: v.nullable(
    v.strictObject({
      ...{ predictedMicros: v.nullable(v.number()), realMicros: v.number() },
      ...{ days: v.number(), since: DaySchema, changes: v.number() },
    }),
  ),
  /** the newest first */
  trays: v.array(TrayOfTodaySchema),
  /** on each day on which something acts */
  days: v.array(v.strictObject({ day: DaySchema, stoppedMicros: v.number() })),
});
export type SavedOfToday = v.InferOutput<typeof SavedOfTodaySchema>;

/** What can be done next, and where. */
export const NEXT_KINDS = [
  'words at fault',
  'terms that miss',
  'send the tray',
  'send again',
  'decide findings',
  'look at rules',
  'look at others',
  'target missed',
  'load files',
  'set a target',
] as const;

const NextSchema = v.strictObject({
  kind: v.picklist(NEXT_KINDS),
  /** how many words, terms, changes or files */
  count: v.number(),
  /** what it is worth in the days looked at; null where that is not known */
  worthMicros: v.nullable(v.number()),
  /** conversions that it risks in these days, by what is known */
  risks: v.nullable(v.number()),
  /** the first of them, by what they are worth */
  first: v.array(v.strictObject({ text: v.string(), costMicros: v.nullable(v.number()) })),
});
export type NextThing = v.InferOutput<typeof NextSchema>;
/** Sorted: what is worth most first, and after it what has no amount. */
export const NextAnswerSchema = v.strictObject({ window: WindowSchema, next: v.array(NextSchema) });
export type NextAnswer = v.InferOutput<typeof NextAnswerSchema>;

const NewSchema = v.strictObject({
  text: v.string(),
  ...{ terms: v.number(), clicks: FIGURES.clicks, costMicros: v.number(), conversions: FIGURES.conversions },
});
/** What came since a person looked last, as of the report before the newest one. */
export const NewsSchema = v.strictObject({
  /** the last day that was known then; null where there are no days after it to tell of */
  since: v.nullable(DaySchema),
  days: v.number(),
  ...{ terms: v.number(), costMicros: v.number() },
  /** words that no term held before, costliest first */
  words: v.array(NewSchema),
  /** terms that were not served before, costliest first */
  first: v.array(NewSchema),
  /** words that are at fault by now and were not at the look before, surest first */
  turnedBad: v.array(NewSchema),
});
export type News = v.InferOutput<typeof NewsSchema>;

/** Signs that a stop shuts out what is wanted. */
const RegretSchema = v.variant('kind', [
  /** terms like those that it stops began to convert where nothing stops them */
  v.strictObject({
    kind: v.literal('neighbours convert'),
    ...{ changeId: v.number(), said: v.string(), sentDay: DaySchema },
    ...{ conversions: v.number(), terms: v.array(v.string()) },
  }),
  /** it matches more queries than when it was made, and those convert */
  v.strictObject({
    kind: v.literal('stops more'),
    ...{ changeId: v.number(), said: v.string(), sentDay: DaySchema },
    ...{ was: v.number(), is: v.number(), conversions: v.number() },
  }),
  /** a live keyword lost impressions that the tray did not stop */
  v.strictObject({
    kind: v.literal('keyword fell'),
    ...{ changeId: v.number(), said: v.string(), sentDay: DaySchema },
    ...{ keyword: v.string(), adGroup: v.string(), before: v.number(), since: v.number(), days: v.number() },
  }),
]);
export type Regret = v.InferOutput<typeof RegretSchema>;
export const RegretsSchema = v.strictObject({ regrets: v.array(RegretSchema) });
