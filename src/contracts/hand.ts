import * as v from 'valibot';
import type { Figures, MatchType, NegativeText, Place, Variant } from '@/core';
import { MatchSchema, type Few, type NegativeInPlace, type Touched, type Weight } from './common';
import { SIFT_FILTERS, whole, type TermLine } from './sift';

/** What is in hand in Sift: a term, and what each choice about it would do. */

export const ChoiceQuerySchema = v.object({
  term: whole(2_147_483_647),
  days: SIFT_FILTERS.days,
  campaign: SIFT_FILTERS.campaign,
  /** positions of the chosen words, from 0, separated by commas; none: the whole term */
  words: v.optional(v.pipe(v.string(), v.regex(/^(\d{1,2}(,\d{1,2})*)?$/)), ''),
});

/** What one negative would do at one place. */
export type PlaceChoice = {
  place: Place;
  /** what to call the place; a list says where it hangs */
  name: string;
  note: string | null;
  /** what is to be known before stopping anything there: that it is paused, or known only from a report */
  heed: string | null;
  weight: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  /** the place holds it already */
  isThere: boolean;
  /** a negative in force everywhere it would be, which covers it (rules 3) */
  coveredBy: NegativeInPlace | null;
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

/** What stopping the chosen words would do. */
export type ChoiceAnswer = {
  id: number;
  /** by words and whole term; none for a term without words */
  choices: MatchChoice[];
  /** the choice that stops the fewest terms and touches nothing */
  smallestSafe: { match: MatchType; place: Place } | null;
};

export const TermQuerySchema = v.object({
  term: whole(2_147_483_647),
  days: SIFT_FILTERS.days,
  /** the one that is looked at: where the term ran there comes first */
  campaign: SIFT_FILTERS.campaign,
});

/** A search term: where it ran, what people said of it, and what else than a negative could be done about it. */
export type TermDetail = {
  id: number;
  raw: string;
  words: string[];
  kind: TermLine['kind'];
  /** where it ran: the campaign that is looked at first, then costliest first */
  ran: {
    campaign: string;
    adGroupId: string;
    adGroup: string;
    keyword: string | null;
    match: string;
    clicks: number | null;
    costMicros: number | null;
    conversions: number | null;
    stoppedBy: NegativeInPlace[];
  }[];
  lastDay: string;
  verdict: Verdict;
  hasConverted: boolean;
  /** each day of the window */
  days: { day: string; clicks: number; costMicros: number; conversions: number }[];
  /** figures since the keyword that served it most was changed, where that was within the window */
  sinceChange: { on: string; clicks: number; costMicros: number; conversions: number } | null;
  notes: Note[];
  /** the term is an exact keyword itself: a case for the bid, not for a negative (rules 11) */
  ownKeyword: OwnKeyword | null;
  /** the term is a product code: where it can be excluded */
  exclusions: ExclusionChoice[];
  /** negatives of the tray that stop it */
  draftedStops: { changeId: number; said: string }[];
};

/** What a person said of a term. */
export type Verdict =
  | { is: 'open' }
  | { is: 'kept'; by: string; note: string | null }
  | { is: 'aside'; by: string; moreClicks: number; since: string };

export const KeywordsQuerySchema = v.object({
  adGroup: v.pipe(v.string(), v.regex(/^\d{1,10}$/)),
  days: SIFT_FILTERS.days,
});
/** Keywords of an ad group with what they brought in the window, costliest first. */
export type KeywordsAnswer = {
  adGroup: string;
  keywords: (Figures & {
    id: string;
    text: string;
    match: string;
    status: string;
    bidMicros: number | null;
  })[];
};

export type Note = { id: number; body: string; by: string; at: string };

export type OwnKeyword = {
  id: string;
  adGroup: string;
  campaign: string;
  bidMicros: number | null;
  /** the most that a click may cost by what is known (rules 7.8); null without a target */
  paysMicros: number | null;
  /** conversion rate to be expected, 0..1 */
  expectedCvr: number | null;
  /** a change of it that is in the tray */
  drafted: string | null;
};

/** What excluding a product at one place would stop. */
export type ExclusionChoice = {
  place: Place;
  name: string;
  note: string | null;
  weight: Weight;
  isThere: boolean;
};

export const VariantsQuerySchema = v.pipe(
  v.object({
    text: v.pipe(v.string(), v.minLength(1), v.maxLength(200)),
    match: MatchSchema,
    kind: v.picklist(['account', 'campaign', 'adGroup', 'list']),
    id: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(80))), null),
    days: SIFT_FILTERS.days,
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
