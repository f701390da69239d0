import * as v from 'valibot';
import { VARIANT_KINDS } from '@/core';
import {
  DaySchema,
  fewOf,
  FIGURES,
  MatchSchema,
  NegativeInPlaceSchema,
  NegativeTextSchema,
  PlaceSchema,
  TouchedSchema,
  WeightSchema,
} from './common';
import { SIFT_FILTERS, TermKindSchema, whole } from './sift';

/** What is in hand in Sift: a term, and what each choice about it would do. */

export const ChoiceQuerySchema = v.object({
  term: whole(2_147_483_647),
  days: SIFT_FILTERS.days,
  campaign: SIFT_FILTERS.campaign,
  /** positions of the chosen words, from 0, separated by commas; none: the whole term */
  words: v.optional(v.pipe(v.string(), v.regex(/^(\d{1,2}(,\d{1,2})*)?$/)), ''),
});

/** What one negative would do at one place. */
const PlaceChoiceSchema = v.strictObject({
  place: PlaceSchema,
  /** what to call the place; a list says where it hangs */
  name: v.string(),
  note: v.nullable(v.string()),
  /** what is to be known before stopping anything there: that it is paused, or known only from a report */
  heed: v.nullable(v.string()),
  weight: WeightSchema,
  touched: TouchedSchema,
  protectedTerms: fewOf(v.string()),
  /** the place holds it already */
  isThere: v.boolean(),
  /** a negative in force everywhere it would be, which covers it (rules 3) */
  coveredBy: v.nullable(NegativeInPlaceSchema),
  /** it stops nothing more at this place, touches no live keyword and no protected term */
  isSafe: v.boolean(),
});
export type PlaceChoice = v.InferOutput<typeof PlaceChoiceSchema>;

const MatchChoiceSchema = v.strictObject({
  ...NegativeTextSchema.entries,
  /** why this match type can not be had: the words do not stand together, or the text is refused */
  refusal: v.nullable(v.string()),
  places: v.array(PlaceChoiceSchema),
});
export type MatchChoice = v.InferOutput<typeof MatchChoiceSchema>;

/** What stopping the chosen words would do. */
export const ChoiceAnswerSchema = v.strictObject({
  id: v.number(),
  /** by words and whole term; none for a term without words */
  choices: v.array(MatchChoiceSchema),
  /** the choice that stops the fewest terms and touches nothing */
  smallestSafe: v.nullable(v.strictObject({ match: MatchSchema, place: PlaceSchema })),
  /** where kin of the chosen words stand already, and which; null where none does, or no word is chosen */
  proposed: v.nullable(v.strictObject({ place: PlaceSchema, because: v.string() })),
});
export type ChoiceAnswer = v.InferOutput<typeof ChoiceAnswerSchema>;

export const TermQuerySchema = v.object({
  term: whole(2_147_483_647),
  days: SIFT_FILTERS.days,
  /** the one that is looked at: where the term ran there comes first */
  campaign: SIFT_FILTERS.campaign,
});

/** What a person said of a term. */
export const VerdictSchema = v.variant('is', [
  v.strictObject({ is: v.literal('open') }),
  v.strictObject({ is: v.literal('kept'), by: v.string(), note: v.nullable(v.string()) }),
  v.strictObject({ is: v.literal('aside'), by: v.string(), moreClicks: v.number(), since: v.string() }),
]);
export type Verdict = v.InferOutput<typeof VerdictSchema>;

const NoteLineSchema = v.strictObject({
  ...{ id: v.number(), body: v.string(), by: v.string(), at: v.string() },
});
export type Note = v.InferOutput<typeof NoteLineSchema>;
export const NotesSchema = v.strictObject({ notes: v.array(NoteLineSchema) });

/** A term beside its ad groups (rules 7.13), over all days that are kept. */
export const BesideSchema = v.strictObject({
  /** conversions that its ad groups would have brought in its place */
  expected: v.number(),
  /** that its rate lies below theirs, 0..1 */
  worse: v.number(),
  /** the one where it cost most, as a whole; null where nothing is known of it */
  adGroup: v.nullable(
    v.strictObject({
      ...{ id: v.string(), name: v.string(), campaign: v.string() },
      /** conversions a click that are expected of it, 0..1 */
      ...{ clicks: v.number(), conversions: v.number(), rate: v.number() },
      /** that it misses the target, 0..1; null without a target */
      misses: v.nullable(v.number()),
      /** the most that its clicks may cost by what is known (rules 7.8); null without a target */
      paysMicros: v.nullable(v.number()),
    }),
  ),
});
export type Beside = v.InferOutput<typeof BesideSchema>;

const OwnKeywordSchema = v.strictObject({
  ...{ id: v.string(), adGroup: v.string(), campaign: v.string(), bidMicros: v.nullable(v.number()) },
  /** the most that a click may cost by what is known (rules 7.8); null without a target */
  paysMicros: v.nullable(v.number()),
  /** conversion rate to be expected, 0..1 */
  expectedCvr: v.nullable(v.number()),
  /** a change of it that is in the tray */
  drafted: v.nullable(v.string()),
});
export type OwnKeyword = v.InferOutput<typeof OwnKeywordSchema>;

/** What excluding a product at one place would stop. */
const ExclusionChoiceSchema = v.strictObject({
  ...{ place: PlaceSchema, name: v.string(), note: v.nullable(v.string()) },
  ...{ weight: WeightSchema, isThere: v.boolean() },
});
export type ExclusionChoice = v.InferOutput<typeof ExclusionChoiceSchema>;

const spent = { clicks: v.number(), costMicros: v.number(), conversions: v.number() };

/** A search term: where it ran, what people said of it, and what else than a negative could be done about it. */
export const TermDetailSchema = v.strictObject({
  ...{ id: v.number(), raw: v.string(), words: v.array(v.string()), kind: TermKindSchema },
  /** where it ran: the campaign that is looked at first, then costliest first */
  ran: v.array(
    v.strictObject({
      ...{ campaign: v.string(), adGroupId: v.string(), adGroup: v.string() },
      ...{ keyword: v.nullable(v.string()), match: v.string() },
      ...{ clicks: FIGURES.clicks, costMicros: FIGURES.costMicros, conversions: FIGURES.conversions },
      stoppedBy: v.array(NegativeInPlaceSchema),
    }),
  ),
  lastDay: v.string(),
  verdict: VerdictSchema,
  hasConverted: v.boolean(),
  /** null where nothing converted in the account, or the term has no click */
  beside: v.nullable(BesideSchema),
  /** each day of the window */
  days: v.array(v.strictObject({ day: DaySchema, ...spent })),
  /** figures since the keyword that served it most was changed, where that was within the window */
  sinceChange: v.nullable(v.strictObject({ on: DaySchema, ...spent })),
  notes: v.array(NoteLineSchema),
  /** the term is an exact keyword itself: a case for the bid, not for a negative (rules 11) */
  ownKeyword: v.nullable(OwnKeywordSchema),
  /** the term is a product code: where it can be excluded */
  exclusions: v.array(ExclusionChoiceSchema),
  /** negatives of the tray that stop it */
  draftedStops: v.array(v.strictObject({ changeId: v.number(), said: v.string() })),
});
export type TermDetail = v.InferOutput<typeof TermDetailSchema>;

export const KeywordsQuerySchema = v.object({
  adGroup: v.pipe(v.string(), v.regex(/^\d{1,10}$/)),
  days: SIFT_FILTERS.days,
});
/** Keywords of an ad group with what they brought in the window, costliest first. */
export const KeywordsAnswerSchema = v.strictObject({
  adGroup: v.string(),
  keywords: v.array(
    v.strictObject({
      ...{ id: v.string(), text: v.string(), match: v.string(), status: v.string() },
      ...{ bidMicros: v.nullable(v.number()), ...FIGURES },
    }),
  ),
});
export type KeywordsAnswer = v.InferOutput<typeof KeywordsAnswerSchema>;

/** A negative at a place, as an address names it. */
export const NegativeQuerySchema = v.pipe(
  v.object({
    text: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
    match: MatchSchema,
    kind: v.picklist(['account', 'campaign', 'adGroup', 'list']),
    id: v.optional(v.nullable(v.pipe(v.string(), v.minLength(1), v.maxLength(80))), null),
    days: SIFT_FILTERS.days,
  }),
  v.check(
    ({ kind, id }) => (kind === 'account') === (id === null),
    'A place other than the account has an id.',
  ),
);

/** Other forms of a negative that occur and would still pass at its place, costliest first. */
export const VariantsAnswerSchema = v.strictObject({
  negative: NegativeTextSchema,
  place: PlaceSchema,
  offers: v.array(v.strictObject({ text: v.string(), how: v.picklist(VARIANT_KINDS), weight: WeightSchema })),
});
export type VariantsAnswer = v.InferOutput<typeof VariantsAnswerSchema>;
