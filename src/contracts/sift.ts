import * as v from 'valibot';
import type { Figures, MatchType, NegativeText, NgramSize, Place, Variant } from '@/core';
import { MatchSchema, type Few, type NegativeInPlace, type Touched, type Weight } from './common';

export const SIFT_VIEWS = ['remaining', 'stopped', 'kept', 'already'] as const;
export type SiftView = (typeof SIFT_VIEWS)[number];
export const RETURNS = ['any', 'none', 'over'] as const;
export type Returns = (typeof RETURNS)[number];
export const SORTS = ['without', 'cost', 'clicks', 'impressions', 'conversions', 'target', 'term'] as const;
export type Sort = (typeof SORTS)[number];

/** Runs of how many words can be looked at. */
export const RUN_SIZES = ['1', '2', '3', '4', '5'] as const;

const whole = (most: number) =>
  v.pipe(v.string(), v.regex(/^\d{1,9}$/), v.transform(Number), v.maxValue(most));

/** The filters of Sift, as they stand in the URL. */
const filters = {
  view: v.optional(v.picklist(SIFT_VIEWS), 'remaining'),
  days: v.optional(v.pipe(whole(366), v.minValue(1))),
  campaign: v.optional(v.string(), ''),
  clicks: v.optional(whole(1_000_000), '0'),
  returns: v.optional(v.picklist(RETURNS), 'any'),
  /** a run of words that the term must hold */
  holding: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  /** letters that the term must hold */
  text: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
};
export const TermsQuerySchema = v.object({
  ...filters,
  sort: v.optional(v.picklist(SORTS), 'without'),
  direction: v.optional(v.picklist(['asc', 'desc']), 'desc'),
  offset: v.optional(whole(10_000_000), '0'),
  most: v.optional(v.pipe(whole(1_000), v.minValue(1)), '100'),
});
export type TermsQuery = v.InferOutput<typeof TermsQuerySchema>;
export const WordsQuerySchema = v.object({
  ...filters,
  n: v.optional(
    v.pipe(
      v.picklist(RUN_SIZES),
      v.transform((n) => Number(n) as NgramSize),
    ),
    '1',
  ),
});
export type WordsQuery = v.InferOutput<typeof WordsQuerySchema>;

/** How sure the figures of a term are that it misses the target (rules 7.3). */
export type Evidence = {
  /** probability, 0..1 */
  misses: number;
  /** conversion rate at which a click pays for itself, 0..1 */
  breakEvenCvr: number;
  /** clicks without a conversion after which it is 95 % sure; null if never */
  settlesAt: number | null;
};

/** One search term: the sums of those of its rows that belong to the view, and the costliest of them. */
export type TermLine = Figures & {
  id: number;
  /** as the report wrote it */
  raw: string;
  /** its words, which can be chosen; none for a product code or a term without a word */
  words: string[];
  kind: 'query' | 'code' | 'wordless' | 'unreported';
  servedBy: { keyword: string | null; match: MatchType | 'automatic' | 'unknown' };
  /** other ad groups and keywords that served it */
  others: number;
  isProtected: boolean;
  /** null where there is no target, or a figure is unknown */
  evidence: Evidence | null;
};

export type TermsPage = {
  total: number;
  counts: Record<SiftView, number>;
  /** of all lines of the view, not only of the page */
  sums: Weight;
  /** cost that the platform reports without a term, and all cost of the window */
  unreportedMicros: number;
  costMicros: number;
  offset: number;
  lines: TermLine[];
};

export type WordLine = {
  ngram: string;
  terms: number;
  costMicros: number;
  withoutReturnMicros: number;
  conversions: number | null;
};
export type WordsAnswer = { total: number; lines: WordLine[] };

export const ChoiceQuerySchema = v.object({
  term: whole(2_147_483_647),
  days: filters.days,
  /** positions of the chosen words, from 0, separated by commas; none: the whole term */
  words: v.optional(v.pipe(v.string(), v.regex(/^(\d{1,2}(,\d{1,2})*)?$/)), ''),
});

/** What one negative would do at one place. */
export type PlaceChoice = {
  place: Place;
  /** what to call the place; a list says where it hangs */
  name: string;
  note: string | null;
  weight: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  /** the place holds it already */
  isThere: boolean;
  /** it stops nothing more at this place, touches no live keyword and no protected term */
  isSafe: boolean;
};

export type MatchChoice = {
  match: MatchType;
  text: string;
  /** why this match type can not be had: the words do not stand together, or the text is refused */
  refusal: string | null;
  places: PlaceChoice[];
};

export type ChoiceAnswer = {
  id: number;
  raw: string;
  words: string[];
  kind: TermLine['kind'];
  /** where it ran, costliest first */
  ran: {
    campaign: string;
    adGroup: string;
    keyword: string | null;
    match: string;
    clicks: number | null;
    costMicros: number | null;
    conversions: number | null;
    stoppedBy: NegativeInPlace[];
  }[];
  lastDay: string;
  isKept: boolean;
  keptBy: string | null;
  hasConverted: boolean;
  choices: MatchChoice[];
  /** the choice that stops the fewest terms and touches nothing */
  smallestSafe: { match: MatchType; place: Place } | null;
};

export const VariantsQuerySchema = v.pipe(
  v.object({
    text: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
    match: MatchSchema,
    kind: v.picklist(['account', 'campaign', 'adGroup', 'list']),
    id: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(80))), null),
    days: filters.days,
  }),
  v.check(
    ({ kind, id }) => (kind === 'account') === (id === null),
    'A place other than the account has an id.',
  ),
);

/** Other forms of a negative that occur and would still pass at its place, costliest first. */
export type VariantsAnswer = {
  negative: NegativeText;
  place: Place;
  offers: { text: string; how: Variant['how']; weight: Weight }[];
};
