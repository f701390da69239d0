import * as v from 'valibot';
import {
  ChangeSchema,
  DaysSchema,
  fewOf,
  NegativeTextSchema,
  StoredNumberSchema,
  TouchedSchema,
  WeightSchema,
} from './common';
import { VerdictSchema } from './hand';
import { FiltersSchema } from './sift';

/** Verdicts, notes, marks and views: what applies at once and never leaves Gate Post. */

const text = (most: number) => v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(most));
export const MoreClicksSchema = v.pipe(
  v.number(),
  v.integer(),
  v.minValue(1, 'Set aside until it has at least one more click.'),
  v.maxValue(100_000),
);
const WantedVerdictSchema = v.variant('is', [
  v.object({ is: v.literal('open') }),
  v.object({ is: v.literal('kept'), note: v.optional(v.nullable(text(500)), null) }),
  v.object({ is: v.literal('aside'), moreClicks: MoreClicksSchema }),
]);
export type WantedVerdict = v.InferOutput<typeof WantedVerdictSchema>;

export const SetVerdictSchema = v.object({
  raw: text(400),
  verdict: WantedVerdictSchema,
  /** what was seen before deciding: when it is another by now, nothing is changed */
  seen: v.optional(v.picklist(['open', 'kept', 'aside'])),
});
export const VerdictOutcomeSchema = v.strictObject({ was: VerdictSchema, said: v.string() });
export type VerdictOutcome = v.InferOutput<typeof VerdictOutcomeSchema>;

const KeptTermSchema = v.strictObject({
  ...{ text: v.string(), raw: v.string(), note: v.nullable(v.string()) },
  ...{ by: v.string(), at: v.string() },
});
export const KeptViewSchema = v.strictObject({
  kept: v.array(KeptTermSchema),
  earned: v.number(),
  keeperConversions: v.nullable(v.number()),
});
export type KeptView = v.InferOutput<typeof KeptViewSchema>;

/** Terms that were marked one by one, or all of a filter but some. */
export const SelectionSchema = v.variant('kind', [
  v.object({
    kind: v.literal('terms'),
    ids: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(1_000_000)),
    /** the filters under which they were marked: only what those show of a term is meant */
    filters: v.optional(FiltersSchema, {}),
  }),
  v.object({
    kind: v.literal('filter'),
    filters: FiltersSchema,
    except: v.pipe(v.array(StoredNumberSchema), v.maxLength(50_000)),
  }),
]);
export type Selection = v.InferOutput<typeof SelectionSchema>;

/** Where the negatives of a batch go; own: where each term cost most. */
const BatchPlaceSchema = v.variant('kind', [
  v.object({ kind: v.literal('account') }),
  v.object({ kind: v.literal('list'), id: text(80) }),
  v.object({ kind: v.picklist(['own campaign', 'own ad group']) }),
]);
export type BatchPlace = v.InferOutput<typeof BatchPlaceSchema>;

const MostNegativesSchema = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(500));
/** each: every term as exact; few: the smallest set of at most so many negatives; like: one that also lasts. */
const BatchWaySchema = v.variant('by', [
  v.object({ by: v.literal('each') }),
  v.object({
    by: v.literal('few'),
    limit: MostNegativesSchema,
    /** it may stop terms that are not marked, as long as they had no conversion and nobody keeps them */
    mayStopOthers: v.boolean(),
  }),
  /** by the set that stops the marked terms and others like them (rules 9.2) */
  v.object({ by: v.literal('like'), limit: MostNegativesSchema }),
]);
export type BatchWay = v.InferOutput<typeof BatchWaySchema>;

export const BatchSchema = v.object({
  selection: SelectionSchema,
  way: BatchWaySchema,
  place: BatchPlaceSchema,
  days: DaysSchema,
});
export const BatchVerdictSchema = v.object({
  selection: SelectionSchema,
  verdict: WantedVerdictSchema,
  days: DaysSchema,
});

/** Why a marked term is left out of a batch. */
const LeftOutSchema = v.strictObject({
  why: v.picklist(['product code', 'no word', 'exact keyword', 'protected', 'refused']),
  terms: fewOf(v.string()),
});
export type LeftOut = v.InferOutput<typeof LeftOutSchema>;

const WeightWithFirstSchema = v.strictObject({ ...WeightSchema.entries, first: v.array(v.string()) });

export const BatchAnswerSchema = v.strictObject({
  marked: WeightSchema,
  leftOut: v.array(LeftOutSchema),
  /** changes that would go in the tray, and the negatives they bring */
  changes: v.number(),
  negatives: fewOf(v.strictObject({ ...NegativeTextSchema.entries, places: v.number() })),
  /** marked terms that they would stop */
  stops: WeightSchema,
  /** other terms that they would stop: wrongly, unless one wants it so */
  others: WeightWithFirstSchema,
  touched: TouchedSchema,
  /** of the cost that can be stopped with so many negatives: stopped, and the most that any set could; null for each */
  bound: v.nullable(v.strictObject({ stoppedMicros: v.number(), mostMicros: v.number() })),
  /** what a set chosen without a fifth of the marked terms, and of the good ones, stops of that fifth; null where nothing was held back */
  heldBack: v.nullable(
    v.strictObject({
      unwanted: v.strictObject({
        ...{ texts: v.number(), costMicros: v.number(), stopped: v.number(), stoppedMicros: v.number() },
      }),
      good: v.strictObject({ texts: v.number(), stopped: v.number() }),
    }),
  ),
  /** why it can not be done at all */
  refusal: v.nullable(v.string()),
});
export type BatchAnswer = v.InferOutput<typeof BatchAnswerSchema>;

/** What became of marked terms that were kept or set aside. */
export const VerdictsOutcomeSchema = v.strictObject({ said: v.string(), changed: v.array(v.number()) });

export const PullSchema = v.object({
  term: v.pipe(v.string(), v.regex(/^\d{1,10}$/), v.transform(Number)),
  change: v.pipe(v.string(), v.regex(/^\d{1,10}$/), v.transform(Number)),
  days: v.optional(v.pipe(v.string(), v.regex(/^\d{1,3}$/), v.transform(Number))),
});
const PullWaySchema = v.strictObject({
  how: v.picklist(['narrower', 'longer', 'none']),
  said: v.string(),
  changes: v.array(ChangeSchema),
  /** terms that the change stops and that would pass again, the term itself left out */
  left: WeightWithFirstSchema,
});
/** A way to let a term through that a change of the tray stops. */
export type PullWay = v.InferOutput<typeof PullWaySchema>;
export const PullAnswerSchema = v.strictObject({
  ...{ changeId: v.number(), said: v.string(), ways: v.array(PullWaySchema) },
});
export type PullAnswer = v.InferOutput<typeof PullAnswerSchema>;

export const NoteAboutSchema = v.object({
  kind: v.picklist(['term', 'theme', 'list']),
  about: text(400),
});
export const NoteSchema = v.object({ ...NoteAboutSchema.entries, body: text(2_000) });
export const NoteOutcomeSchema = v.strictObject({ noteId: v.number() });
/** A note that was removed, so that it can be written again. */
export const RemovedNoteSchema = v.strictObject({
  ...{ kind: NoteAboutSchema.entries.kind, about: v.string(), body: v.string() },
});

export const WordTagSchema = v.object({
  text: text(200),
  tag: v.nullable(v.picklist(['neutral', 'location'])),
});
const WordTagLineSchema = v.strictObject({
  ...{ text: v.string(), tag: v.picklist(['neutral', 'location']), by: v.string(), at: v.string() },
});
export type WordTagView = v.InferOutput<typeof WordTagLineSchema>;
export const WordTagsSchema = v.strictObject({ tags: v.array(WordTagLineSchema) });
export const WordTagOutcomeSchema = v.strictObject({ was: WordTagSchema.entries.tag });

export const SavedViewSchema = v.object({
  name: text(60),
  search: v.pipe(v.string(), v.maxLength(1_000)),
  /** when it was saved, as it was seen: a view that was changed meanwhile is not overwritten */
  replaces: v.optional(v.nullable(v.string()), null),
});
export const SavedViewLineSchema = v.strictObject({
  ...{ name: v.string(), search: v.string(), by: v.string(), at: v.string() },
});
export type SavedViewLine = v.InferOutput<typeof SavedViewLineSchema>;
export const SavedViewsSchema = v.strictObject({ views: v.array(SavedViewLineSchema) });
export const SavedViewOutcomeSchema = v.strictObject({ was: v.nullable(SavedViewLineSchema) });

export const LookedAtSchema = v.object({
  terms: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(1_000)),
});

export const LookedOutcomeSchema = v.strictObject({ added: v.number() });

/** The versions of an account: another number than before means that something changed. */
export const PulseSchema = v.strictObject({ data: v.number(), decisions: v.number() });
export type Pulse = v.InferOutput<typeof PulseSchema>;

/** What a browser asks every two seconds. */
export const PulseAnswerSchema = v.strictObject({
  ...PulseSchema.entries,
  /** since when no job process was heard of, empty where none ever was; null while one is */
  jobsSilentSince: v.nullable(v.string()),
});
export type PulseAnswer = v.InferOutput<typeof PulseAnswerSchema>;
