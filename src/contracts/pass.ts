import * as v from 'valibot';
import { DaysQuerySchema, DaysSchema, fewOf, NegativeTextSchema, PlaceSchema, WeightSchema } from './common';
import { BesideSchema } from './hand';
import { FaultSchema } from './sift';

/** The guided pass through what surely can't pay: words at fault, then terms, then what is left by cost (rules 7.14). */

/** A place where the negatives of a word could stand, and what they would stop there. */
const PassPlaceSchema = v.strictObject({
  ...{ place: PlaceSchema, name: v.string() },
  /** why it is proposed, or where it hangs */
  note: v.nullable(v.string()),
  /** what nothing stops yet, in the window */
  stops: WeightSchema,
  /** conversions that it risks in the window, by what is known of the word */
  risks: v.number(),
});

const PassWordSchema = v.strictObject({
  ngram: v.string(),
  fault: FaultSchema,
  /** the word as a phrase, or longer ones around the protected terms that hold it */
  negatives: fewOf(NegativeTextSchema),
  leavesOpen: fewOf(v.string()),
  /** the likely one first */
  places: v.array(PassPlaceSchema),
});
export type PassWord = v.InferOutput<typeof PassWordSchema>;

const PassTermSchema = v.strictObject({
  ...{ id: v.number(), raw: v.string() },
  /** probability that it misses the target, 0..1; null without a target */
  misses: v.nullable(v.number()),
  /** of all days that are kept */
  ...{ clicks: v.number(), conversions: v.number() },
  beside: v.nullable(BesideSchema),
  /** where it would be stopped, as exact: the campaigns that served it */
  campaigns: fewOf(v.string()),
  stops: WeightSchema,
  risks: v.number(),
});
export type PassTerm = v.InferOutput<typeof PassTermSchema>;

/** An ad group that misses the target as a whole: a case for its bid, not for negatives (rules 7.13). */
const MissingGroupSchema = v.strictObject({
  ...{ name: v.string(), campaign: v.string(), terms: v.number(), costMicros: v.number() },
  ...{ clicks: v.number(), conversions: v.number(), paysMicros: v.nullable(v.number()) },
});
export type MissingGroup = v.InferOutput<typeof MissingGroupSchema>;

const GainSchema = v.strictObject({ costMicros: v.number(), risks: v.number() });

export const PassQuerySchema = DaysQuerySchema;
export const PassAnswerSchema = v.strictObject({
  words: v.array(PassWordSchema),
  /** at fault, but not offered; and what stands against it */
  barred: v.array(
    v.strictObject({
      ...{ ngram: v.string(), fault: FaultSchema },
      by: v.picklist(['brand word', 'live keyword', 'protected term']),
      names: fewOf(v.string()),
    }),
  ),
  terms: v.array(PassTermSchema),
  groups: v.array(MissingGroupSchema),
  /** the costliest terms without return that neither step names, and how many there are */
  left: v.strictObject({ count: v.number(), costMicros: v.number(), first: v.array(PassTermSchema) }),
  /** the first of all days that are kept; null before the first load */
  since: v.nullable(v.string()),
  /** what the first two steps would still stop, each term once, and the conversions that this risks */
  gain: v.strictObject({ words: GainSchema, terms: GainSchema }),
  /** cost that the tray stops, and conversions of the window */
  ...{ stoppedMicros: v.number(), conversions: v.number() },
});
export type PassAnswer = v.InferOutput<typeof PassAnswerSchema>;

const IdsSchema = v.pipe(
  v.array(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(2_147_483_647))),
  v.minLength(1),
  v.maxLength(5_000),
);
/** What of a pass is to be put in the tray: words, each at the likely place or at the one given; or whole terms. */
export const PassDraftSchema = v.pipe(
  v.object({
    words: v.optional(
      v.pipe(
        v.array(
          v.object({
            ngram: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
            place: v.optional(PlaceSchema),
          }),
        ),
        v.maxLength(5_000),
      ),
      [],
    ),
    terms: v.optional(IdsSchema),
    days: DaysSchema,
  }),
  v.check(({ words, terms }) => words.length > 0 || terms !== undefined, 'Name words or terms.'),
);
export type PassDraft = v.InferOutput<typeof PassDraftSchema>;
