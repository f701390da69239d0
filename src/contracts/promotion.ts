import * as v from 'valibot';
import { MATCH_TYPES } from '@/core';
import {
  DaysQuerySchema,
  DaysSchema,
  ElementNameSchema,
  FIGURES,
  fewOf,
  MatchSchema,
  NamedSchema,
  WeightSchema,
} from './common';
import { SeatsSchema } from './account';
import { DraftOutcomeSchema } from './tray';
import { LeftSchema, PileCountsSchema, PileSchema } from './knots';

/** Converting search terms that deserve keywords of their own, and the seats that they get. */

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(500));
const groupKey = v.pipe(v.string(), v.minLength(1), v.maxLength(100));
const amount = (most: number, says: string) =>
  v.pipe(v.string(), v.regex(new RegExp(`^\\d{1,${most}}([.]\\d{1,2})?$`), says), v.transform(Number));

/** Against the target of the group, by the figures of the days that are shown. */
export const REACHES = ['all', 'within', 'over'] as const;

export const PromotionsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  pile: PileSchema,
  /** terms that have so many conversions in the group */
  conversions: v.optional(amount(6, 'This is no number of conversions.'), '1'),
  reach: v.optional(v.picklist(REACHES), 'all'),
  group: v.optional(groupKey),
  /** terms that were served in the campaign */
  campaign: v.optional(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'This is no campaign.'))),
  /** terms that are searched for so often a month, or less; where that is not known they are left out */
  searchesFrom: v.optional(amount(9, 'This is no number of searches.')),
  searchesTo: v.optional(amount(9, 'This is no number of searches.')),
});
export type PromotionsQuery = v.InferOutput<typeof PromotionsQuerySchema>;

export const PromotionsSheetQuerySchema = v.object({
  ...PromotionsQuerySchema.entries,
  as: v.optional(v.picklist(['csv', 'xlsx'], 'Terms are saved as csv or xlsx.'), 'xlsx'),
});

const SeatSchema = v.strictObject({
  ...{ campaign: v.string(), adGroup: v.string() },
  /** a person has chosen it; else it is proposed */
  isChosen: v.boolean(),
  state: v.picklist(['serves', 'serves nothing', 'in the tray']),
});
export type SeatView = v.InferOutput<typeof SeatSchema>;
const SeatsViewSchema = v.strictObject(v.entriesFromList(MATCH_TYPES, v.nullable(SeatSchema)));

const GroupSchema = v.strictObject({
  ...{ key: v.string(), name: v.string() },
  /** it is a product group of the Account screen; else a campaign, as far as its ad groups are in none */
  isOwn: v.boolean(),
  /** micro-units or a fraction, as the account steers; null: there is none */
  target: v.nullable(v.number()),
  seats: SeatsViewSchema,
  /** chosen once, and not there any more */
  gone: v.array(v.strictObject({ match: MatchSchema, campaign: v.string(), adGroup: v.string() })),
  /** converting terms, with the conversions that are asked for */
  terms: v.number(),
  /** in which seats can be made */
  adGroups: v.number(),
});
export type PromotionGroup = v.InferOutput<typeof GroupSchema>;

export const PromotionLineSchema = v.strictObject({
  ...{ term: v.string(), group: v.string() },
  /** of the term in the ad groups of the group */
  ...FIGURES,
  target: v.nullable(v.number()),
  /** how sure it is that it reaches the target there, 0..1, by all days that are kept; null: nothing can be said */
  reaches: v.nullable(v.number()),
  /** a month; null: not known */
  searches: v.nullable(v.number()),
  /** ad groups that served it, the one where it cost most first */
  servedIn: fewOf(v.string()),
  /** it is an exact keyword of the group, and other parts are missing */
  isExact: v.boolean(),
  /** what a plan would make: keywords and negatives */
  ...{ keywords: v.number(), negatives: v.number() },
  left: LeftSchema,
});
export type PromotionLine = v.InferOutput<typeof PromotionLineSchema>;

export const PromotionsViewSchema = v.strictObject({
  days: v.number(),
  counts: PileCountsSchema,
  groups: v.array(GroupSchema),
  /** in which terms were served */
  campaigns: v.array(NamedSchema),
  /** of the pile, those of most value first; no more than can be planned at once */
  ...{ lines: v.array(PromotionLineSchema), total: v.number() },
});
export type PromotionsView = v.InferOutput<typeof PromotionsViewSchema>;

/** The most terms that are planned at once. */
export const MOST_PROMOTED = 5_000;

/** Parts of a plan that are taken out: all of a kind, or a negative of one source. */
const PART_KEY = /^(keyword (exact|phrase|broad)|negative (phrase|broad|source)( \d{1,9})?)$/;

export const PlanRequestSchema = v.object({
  terms: v.pipe(
    v.array(v.strictObject({ term: text, group: groupKey })),
    v.minLength(1, 'Choose a term.'),
    v.maxLength(MOST_PROMOTED, `No more than ${MOST_PROMOTED.toLocaleString('en')} terms at once.`),
  ),
  without: v.optional(
    v.pipe(v.array(v.pipe(v.string(), v.regex(PART_KEY, 'There is no such part.'))), v.maxLength(200)),
    [],
  ),
  /** the opening bid of the keywords, micro-units; as it is reckoned where nothing is said */
  bidMicros: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1e12))),
  days: DaysSchema,
});
export type PlanRequest = v.InferOutput<typeof PlanRequestSchema>;

const PartSchema = v.strictObject({
  /** names it among the parts that can be taken out */
  key: v.string(),
  ...{ kind: v.picklist(['keyword', 'negative']), match: MatchSchema },
  at: v.picklist([...MATCH_TYPES, 'source']),
  ...{ campaign: v.string(), adGroup: v.string() },
  /** what would be made; what is there already; what was taken out; what stands in the way, in words */
  state: v.picklist(['new', 'runs again', 'there', 'out', 'in the way']),
  why: v.nullable(v.string()),
});
export type PartLine = v.InferOutput<typeof PartSchema>;

/** What a seat, or an ad group that served the terms, gets or leaves from now on, by the queries of the window. */
const TrafficSchema = v.strictObject({
  ...{ campaign: v.string(), adGroup: v.string() },
  weight: WeightSchema,
});

export const PlanViewSchema = v.strictObject({
  /** of a single term; none of many */
  parts: v.array(PartSchema),
  bid: v.nullable(
    v.strictObject({
      bidMicros: v.number(),
      ...{ cpcMicros: v.number(), actual: v.nullable(v.number()), target: v.nullable(v.number()) },
    }),
  ),
  ...{ terms: v.number(), keywords: v.number(), negatives: v.number() },
  /** why it can not be put in the tray as it is */
  refusal: v.nullable(v.string()),
  /** what no keyword can be made for, since no bid can be reckoned: its name */
  withoutBid: fewOf(v.string()),
  /** match types for which a group of the terms has no seat */
  missing: v.array(v.strictObject({ group: v.string(), matches: v.array(MatchSchema) })),
  obstacles: fewOf(v.string()),
  /** queries that each seat gets, and each ad group leaves; and queries that nothing of the plan would serve */
  gets: v.array(v.strictObject({ match: MatchSchema, ...TrafficSchema.entries })),
  leaves: v.array(TrafficSchema),
  /** ad groups that go on serving a single term, since they are within its target */
  stays: v.array(TrafficSchema),
  nowhere: v.strictObject({ ...WeightSchema.entries, first: v.array(v.string()) }),
});
export type PlanView = v.InferOutput<typeof PlanViewSchema>;

/** Which ad group is a seat of a group from now on; null: the one that is proposed. */
export const SeatRequestSchema = v.object({
  group: groupKey,
  match: MatchSchema,
  seat: v.nullable(v.strictObject({ campaign: ElementNameSchema, adGroup: ElementNameSchema })),
  /** the product group goes with its last seat: it was made for it */
  unmakes: v.optional(v.boolean(), false),
});

/** Seats that are to be made, in the tray. */
export const MakeSeatsSchema = v.object({
  group: groupKey,
  matches: v.pipe(v.array(MatchSchema), v.minLength(1, 'Choose a seat.'), v.maxLength(3)),
  campaign: ElementNameSchema,
  /** of a day, where the campaign is new; micro-units */
  budgetMicros: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1e12))),
});
/** What became of them, and the seats that were chosen before. */
export const MadeSeatsSchema = v.strictObject({
  outcomes: v.array(DraftOutcomeSchema),
  ...{ group: v.string(), isMade: v.boolean(), was: SeatsSchema },
});
export const SeatSaidSchema = v.strictObject({
  ...{ said: v.string(), group: v.string() },
  /** the group is a product group only now */
  isMade: v.boolean(),
  was: v.nullable(v.strictObject({ campaign: v.string(), adGroup: v.string() })),
});

export const OwnKeywordsQuerySchema = v.object({
  pile: PileSchema,
  /** from how sure on it is that they miss, in per cent */
  sure: v.optional(
    v.pipe(v.picklist(['50', '80', '95'], 'Choose 50, 80 or 95 per cent.'), v.transform(Number)),
    '80',
  ),
});
export type OwnKeywordsQuery = v.InferOutput<typeof OwnKeywordsQuerySchema>;

const sums = { clicks: v.number(), costMicros: v.number(), conversions: v.number(), valueMicros: v.number() };

const OwnKeywordLineSchema = v.strictObject({
  ...{ id: v.string(), text: v.string(), campaign: v.string(), adGroup: v.string() },
  ...{ bidMicros: v.nullable(v.number()), changedOn: v.nullable(v.string()) },
  /** on all days that are kept, less the lag */
  ever: v.strictObject(sums),
  /** since its last change; null where nobody says when that was */
  since: v.nullable(v.strictObject(sums)),
  /** micro-units or a fraction, as the account steers */
  target: v.number(),
  /** how sure it is that it misses, 0..1 */
  misses: v.number(),
  /** the bid at which it is expected to reach the target (rules 7.8) */
  paysMicros: v.nullable(v.number()),
  /** the change to it that is in the tray, in words */
  drafted: v.nullable(v.string()),
  left: LeftSchema,
});
export type OwnKeywordLine = v.InferOutput<typeof OwnKeywordLineSchema>;

/** Live exact keywords that miss their target. */
export const OwnKeywordsViewSchema = v.strictObject({
  counts: PileCountsSchema,
  /** of the pile */
  costMicros: v.number(),
  lines: v.array(OwnKeywordLineSchema),
});
export type OwnKeywordsView = v.InferOutput<typeof OwnKeywordsViewSchema>;
