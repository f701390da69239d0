import * as v from 'valibot';
import type { Change, NegativeText } from '@/core';
import { DaysSchema, StoredNumberSchema, type Few, type Touched, type Weight } from './common';
import { type Verdict } from './hand';
import { FiltersSchema } from './sift';

/** Verdicts, notes, marks and views: what applies at once and never leaves Gate Post. */

const text = (most: number) => v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(most));
const moreClicks = v.pipe(
  v.number(),
  v.integer(),
  v.minValue(1, 'Set aside until it has at least one more click.'),
  v.maxValue(100_000),
);
const VerdictSchema = v.variant('is', [
  v.object({ is: v.literal('open') }),
  v.object({ is: v.literal('kept'), note: v.optional(v.nullable(text(500)), null) }),
  v.object({ is: v.literal('aside'), moreClicks }),
]);
export type WantedVerdict = v.InferOutput<typeof VerdictSchema>;

export const SetVerdictSchema = v.object({
  raw: text(400),
  verdict: VerdictSchema,
  /** what was seen before deciding: when it is another by now, nothing is changed */
  seen: v.optional(v.picklist(['open', 'kept', 'aside'])),
});
export type VerdictOutcome = { was: Verdict; said: string };

export type KeptTerm = { text: string; raw: string; note: string | null; by: string; at: string };
export type KeptView = { kept: KeptTerm[]; earned: number; keeperConversions: number | null };

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

/** each: every term as exact; few: the smallest set of at most so many negatives. */
const BatchWaySchema = v.variant('by', [
  v.object({ by: v.literal('each') }),
  v.object({
    by: v.literal('few'),
    limit: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(500)),
    /** it may stop terms that are not marked, as long as they had no conversion and nobody keeps them */
    mayStopOthers: v.boolean(),
  }),
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
  verdict: VerdictSchema,
  days: DaysSchema,
});

/** Why a marked term is left out of a batch. */
export type LeftOut = {
  why: 'product code' | 'no word' | 'exact keyword' | 'protected' | 'refused';
  terms: Few<string>;
};

export type BatchAnswer = {
  marked: Weight;
  leftOut: LeftOut[];
  /** changes that would go in the tray, and the negatives they bring */
  changes: number;
  negatives: Few<NegativeText & { places: number }>;
  /** marked terms that they would stop */
  stops: Weight;
  /** other terms that they would stop: wrongly, unless one wants it so */
  others: Weight & { first: string[] };
  touched: Touched;
  /** of the cost that can be stopped with so many negatives: stopped, and the most that any set could; null for each */
  bound: { stoppedMicros: number; mostMicros: number } | null;
  /** why it can not be done at all */
  refusal: string | null;
};

export const PullSchema = v.object({
  term: v.pipe(v.string(), v.regex(/^\d{1,10}$/), v.transform(Number)),
  change: v.pipe(v.string(), v.regex(/^\d{1,10}$/), v.transform(Number)),
  days: v.optional(v.pipe(v.string(), v.regex(/^\d{1,3}$/), v.transform(Number))),
});
/** A way to let a term through that a change of the tray stops. */
export type PullWay = {
  how: 'narrower' | 'longer' | 'none';
  said: string;
  changes: Change[];
  /** terms that the change stops and that would pass again, the term itself left out */
  left: Weight & { first: string[] };
};
export type PullAnswer = { changeId: number; said: string; ways: PullWay[] };

export const NoteAboutSchema = v.object({
  kind: v.picklist(['term', 'theme']),
  about: text(400),
});
export const NoteSchema = v.object({ ...NoteAboutSchema.entries, body: text(2_000) });

export const WordMarkSchema = v.object({
  text: text(200),
  mark: v.nullable(v.picklist(['neutral', 'place'])),
});
export type WordMarkView = { text: string; mark: 'neutral' | 'place'; by: string; at: string };

export const SavedViewSchema = v.object({
  name: text(60),
  search: v.pipe(v.string(), v.maxLength(1_000)),
  /** when it was saved, as it was seen: a view that was changed meanwhile is not overwritten */
  replaces: v.optional(v.nullable(v.string()), null),
});
export type SavedViewLine = { name: string; search: string; by: string; at: string };

export const LookedAtSchema = v.object({
  terms: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(1_000)),
});

/** What changed on the account since: another number than before means that something did. */
export type Pulse = { data: number; decisions: number };
