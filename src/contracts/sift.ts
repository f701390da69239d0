import * as v from 'valibot';
import { NAME_KINDS } from './locations';
import { MATCH_TYPES, type NgramSize } from '@/core';
import { FIGURES, TwoWindowsSchema, WeightSchema } from './common';
import { DaysTextSchema } from './days';

export const SIFT_VIEWS = ['remaining', 'stopped', 'kept', 'aside', 'already'] as const;
export type SiftView = (typeof SIFT_VIEWS)[number];
/** either: none, or over the target */
export const RETURNS = ['any', 'none', 'over', 'either'] as const;
export type Returns = (typeof RETURNS)[number];
/** By what kind of keyword a term was served; loose: broad or automatic. */
export const SERVED = ['any', 'loose', 'broad', 'automatic', 'phrase', 'exact'] as const;
export type Served = (typeof SERVED)[number];
/**
 * What a term is like: a product code; one that names a location (rules 7.10), or one that is not served (16.7); plainly about something else (rules 7.9);
 * new since the last pass; not looked at in this pass.
 */
export const TRAITS = ['any', 'code', 'location', 'not served', 'off', 'new', 'unseen'] as const;
export type Trait = (typeof TRAITS)[number];
export const SORTS = [
  ...['without', 'cost', 'clicks', 'impressions', 'conversions', 'target', 'evidence', 'term'],
] as const satisfies string[];
export type Sort =
  'without' | 'cost' | 'clicks' | 'impressions' | 'conversions' | 'target' | 'evidence' | 'term';

/** N-grams of how many words can be looked at. */
export const NGRAM_SIZES = ['1', '2', '3', '4', '5'] as const;

/** A whole number in an address, up to the most. */
export const whole = (most: number) =>
  v.pipe(v.string(), v.regex(/^\d{1,9}$/), v.transform(Number), v.maxValue(most));

/** Clicks and conversions that a term must have: from-to,from-to, both ends included. */
const REGION = /^(\d{1,9})-(\d{1,9}),(\d{1,7}(?:\.\d{1,2})?)-(\d{1,7}(?:\.\d{1,2})?)$/;
export type Region = { clicks: [number, number]; conversions: [number, number] };

/** @example formatRegion({ clicks: [10, 40], conversions: [0, 1] }) // '10-40,0-1' */
export function formatRegion({ clicks, conversions }: Region): string {
  return `${clicks.join('-')},${conversions.join('-')}`;
}

/** @returns undefined where the text is no region, or an end lies before its start */
export function parseRegion(text: string): Region | undefined {
  const found = REGION.exec(text);
  if (!found) return undefined;
  const [clicks, conversions] = [
    [Number(found[1]), Number(found[2])],
    [Number(found[3]), Number(found[4])],
  ] as [[number, number], [number, number]];
  return clicks[0] <= clicks[1] && conversions[0] <= conversions[1] ? { clicks, conversions } : undefined;
}

/** The filters of Sift, as they stand in the URL. */
export const SIFT_FILTERS = {
  view: v.optional(v.picklist(SIFT_VIEWS), 'remaining'),
  days: v.optional(DaysTextSchema),
  campaign: v.optional(v.string(), ''),
  clicks: v.optional(whole(1_000_000), '0'),
  returns: v.optional(v.picklist(RETURNS), 'any'),
  served: v.optional(v.picklist(SERVED), 'any'),
  trait: v.optional(v.picklist(TRAITS), 'any'),
  /** sure: surely missing the target (rules 7.3) */
  evidence: v.optional(v.picklist(['any', 'sure']), 'any'),
  region: v.optional(
    v.pipe(
      v.string(),
      v.check(
        (text) => text === '' || parseRegion(text) !== undefined,
        'This is no region of clicks and conversions.',
      ),
    ),
    '',
  ),
  /** an n-gram that the term must hold */
  holding: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  /** yes: other forms of those words count too */
  forms: v.optional(v.picklist(['yes', 'no']), 'yes'),
  /** letters that the term must hold */
  text: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
};
export const TermsQuerySchema = v.object({
  ...SIFT_FILTERS,
  sort: v.optional(v.picklist(SORTS), 'without'),
  direction: v.optional(v.picklist(['asc', 'desc']), 'desc'),
  /** other days, whose figures stand beside */
  beside: v.optional(DaysTextSchema),
  offset: v.optional(whole(10_000_000), '0'),
  most: v.optional(v.pipe(whole(1_000), v.minValue(1)), '100'),
});
export type TermsQuery = v.InferOutput<typeof TermsQuerySchema>;
export const FiltersSchema = v.object(SIFT_FILTERS);
export type SiftFilters = v.InferOutput<typeof FiltersSchema>;
/**
 * What n-grams are ranked by: how surely they are at fault (then of 1 to 3 words, as they are written), spend without
 * return, the share of spend that returns nothing, or terms.
 */
export const RANKS = ['fault', 'without', 'share', 'terms'] as const;
export type Rank = (typeof RANKS)[number];
export const WordsQuerySchema = v.object({
  ...SIFT_FILTERS,
  n: v.optional(
    v.pipe(
      v.picklist(NGRAM_SIZES),
      v.transform((n) => Number(n) as NgramSize),
    ),
    '1',
  ),
  rank: v.optional(v.picklist(RANKS), 'fault'),
});
export type WordsQuery = v.InferOutput<typeof WordsQuerySchema>;

/** How sure the figures of a term are that it misses the target (rules 7.3). */
const EvidenceSchema = v.strictObject({
  /** probability, 0..1 */
  misses: v.number(),
  /** conversion rate at which a click pays for itself, 0..1 */
  breakEvenCvr: v.number(),
  /** clicks without a conversion after which it is 95 % sure; null if never */
  settlesAt: v.nullable(v.number()),
  /** of all days that are kept, by which it is told, and the first of them */
  ...{ clicks: v.number(), conversions: v.number(), since: v.string() },
});
export type Evidence = v.InferOutput<typeof EvidenceSchema>;

export const TermKindSchema = v.picklist(['query', 'code', 'wordless', 'unreported']);

/** One search term: the sums of those of its rows that belong to the view, and the costliest of them. */
const TermLineSchema = v.strictObject({
  id: v.number(),
  /** as the report wrote it */
  raw: v.string(),
  /** its words, which can be chosen; none for a product code or a term without a word */
  words: v.array(v.string()),
  kind: TermKindSchema,
  servedBy: v.strictObject({
    keyword: v.nullable(v.string()),
    match: v.picklist([...MATCH_TYPES, 'automatic', 'unknown']),
  }),
  /** other ad groups and keywords that served it */
  others: v.number(),
  isProtected: v.boolean(),
  /** looked at in this pass */
  isSeen: v.boolean(),
  notes: v.number(),
  /** locations that it names and that are not served; perhaps: the name is an ordinary word as well */
  locations: v.array(v.strictObject({ name: v.string(), kind: v.picklist(NAME_KINDS) })),
  /** null where there is no target, or a figure is unknown */
  evidence: v.nullable(EvidenceSchema),
  /** where it cost most */
  campaign: v.string(),
  adGroup: v.string(),
  lastDay: v.string(),
  ...FIGURES,
  /** all of the term in these days and in those beside; null where no other days are looked at */
  beside: v.nullable(TwoWindowsSchema),
});
export type TermLine = v.InferOutput<typeof TermLineSchema>;

/** How far the pass has come: terms looked at or decided since the last report, and their share of the spend. */
const PassProgressSchema = v.strictObject({
  ...{ terms: v.number(), ofTerms: v.number(), costMicros: v.number(), ofCostMicros: v.number() },
});
export type PassProgress = v.InferOutput<typeof PassProgressSchema>;

export const TermsPageSchema = v.strictObject({
  total: v.number(),
  counts: v.strictObject(v.entriesFromList(SIFT_VIEWS, v.number())),
  /** of all lines of the view, not only of the page */
  sums: WeightSchema,
  /** the terms of the view, all of each, in these days and in those beside */
  beside: v.nullable(TwoWindowsSchema),
  /** cost that the platform reports without a term, and all cost of the window */
  unreportedMicros: v.number(),
  costMicros: v.number(),
  pass: v.nullable(PassProgressSchema),
  offset: v.number(),
  lines: v.array(TermLineSchema),
});
export type TermsPage = v.InferOutput<typeof TermsPageSchema>;

/** Where the next term stands that was not looked at in this pass; null where all were. */
export const UnseenAnswerSchema = v.strictObject({ index: v.nullable(v.number()) });

/** How surely some words bring their terms below what their ad groups bring, over all days that are kept (rules 7.12). */
export const FaultSchema = v.strictObject({
  /** probability, 0..1 */
  probability: v.number(),
  /** conversions that their ad groups would have brought, and that they brought */
  ...{ expected: v.number(), conversions: v.number() },
  ...{ terms: v.number(), clicks: v.number() },
});
export type Fault = v.InferOutput<typeof FaultSchema>;

const WordLineSchema = v.strictObject({
  ngram: v.string(),
  /** other forms that are counted with it */
  forms: v.array(v.string()),
  isKept: v.boolean(),
  ...{ terms: v.number(), costMicros: v.number(), withoutReturnMicros: v.number() },
  conversions: FIGURES.conversions,
  /** null where too little is known to judge it */
  fault: v.nullable(FaultSchema),
});
export type WordLine = v.InferOutput<typeof WordLineSchema>;
export const WordsAnswerSchema = v.strictObject({
  ...{ lines: v.array(WordLineSchema), neutral: v.number() },
  /** the first of all days that are kept; null before the first load */
  since: v.nullable(v.string()),
});
export type WordsAnswer = v.InferOutput<typeof WordsAnswerSchema>;

/** Words that never brought a return and are asked for together (rules 7.7). */
const ThemeLineSchema = v.strictObject({
  ...{ words: v.array(v.string()), terms: v.number(), clicks: FIGURES.clicks },
  ...{ costMicros: v.number(), notes: v.number(), fault: v.nullable(FaultSchema) },
});
export type ThemeLine = v.InferOutput<typeof ThemeLineSchema>;
export const ThemesAnswerSchema = v.strictObject({ lines: v.array(ThemeLineSchema) });
export type ThemesAnswer = v.InferOutput<typeof ThemesAnswerSchema>;

/** Terms on clicks against conversions. */
export const PlotAnswerSchema = v.strictObject({
  /** terms of the same clicks and conversions (to a tenth) are one dot; by clicks, then conversions */
  dots: v.array(
    v.strictObject({
      ...{ clicks: v.number(), conversions: v.number(), terms: v.number() },
      /** of them, those that miss the target for certain, by their own cost a click */
      sure: v.number(),
      costMicros: v.number(),
    }),
  ),
  /** terms that have no place in it: without a click, or with unknown conversions */
  withoutClicks: v.number(),
  /** conversions a click at which the account's clicks pay; null without a target */
  breakEvenCvr: v.nullable(v.number()),
  /** the most conversions with which so many clicks certainly miss the target, where any do; by clicks */
  settled: v.array(v.strictObject({ clicks: v.number(), conversions: v.number() })),
});
export type PlotAnswer = v.InferOutput<typeof PlotAnswerSchema>;
