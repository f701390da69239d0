import * as v from 'valibot';
import { PRIORITIES } from '@/core';

/**
 * What is said between Gate Post and an ad platform over HTTP. Ids are the platform's. An element that a change of
 * the same batch (or an earlier one) makes is named by `key:` and that change's key.
 *
 *   GET  /accounts/:id/structure?since=revision   → StructureAnswer: all that changed after the revision
 *   GET  /accounts/:id/reports?kind=search-terms&from&to → CSV
 *   POST /accounts/:id/changes   ChangesRequest   → ChangesAnswer; 409 when a key comes again with another body;
 *                                429 with Retry-After, seconds, when it comes too fast: nothing was done
 *   POST /accounts/:id/clock     ClockRequest     → ClockAnswer (the stand-in's clock can be moved on)
 *   GET, PUT /accounts/:id/faults  Faults         (what is to go wrong on the stand-in)
 */

export const MOST_CHANGES_IN_BATCH = 500;

const text = v.pipe(v.string(), v.maxLength(500));
const id = v.pipe(v.string(), v.minLength(1), v.maxLength(80));
const day = v.pipe(v.string(), v.isoDate());
const micros = v.pipe(v.number(), v.integer());
const match = v.picklist(['broad', 'phrase', 'exact']);
const place = v.variant('kind', [
  v.object({ kind: v.literal('account'), id: v.null() }),
  v.object({ kind: v.picklist(['campaign', 'adGroup', 'list']), id }),
]);
/** Where a product can be excluded. */
const productPlace = v.object({ kind: v.picklist(['campaign', 'adGroup']), id });
const listContent = v.picklist(['words', 'placements']);
const status = v.picklist(['live', 'paused', 'ended', 'removed']);

export const PlatformChangeSchema = v.variant('kind', [
  v.object({ kind: v.picklist(['add negative', 'remove negative']), text, match, place }),
  v.object({ kind: v.literal('make list'), name: text, holds: v.optional(listContent, 'words') }),
  v.object({ kind: v.literal('rename list'), listId: id, name: text }),
  v.object({ kind: v.literal('remove list'), listId: id }),
  /** the campaign null is the whole account */
  v.object({ kind: v.picklist(['hang list', 'take down list']), listId: id, campaignId: v.nullable(id) }),
  v.object({ kind: v.picklist(['add placement', 'remove placement']), address: text, listId: id }),
  v.object({ kind: v.picklist(['exclude product', 'readmit product']), code: text, place: productPlace }),
  v.object({ kind: v.literal('set bid'), keywordId: id, bidMicros: v.pipe(micros, v.minValue(0)) }),
  v.object({ kind: v.picklist(['pause keyword', 'run keyword']), keywordId: id }),
  v.object({
    ...{ kind: v.literal('set budget'), campaignId: id },
    budgetMicros: v.pipe(micros, v.minValue(1)),
  }),
  v.object({
    ...{ kind: v.picklist(['share budget', 'leave budget']), campaignId: id, budget: text },
    /** what all that share it may cost a day, and what the campaign may while it pays by itself */
    ...{ budgetMicros: v.pipe(micros, v.minValue(1)), ownMicros: v.pipe(micros, v.minValue(1)) },
  }),
  v.object({ kind: v.literal('set priority'), campaignId: id, priority: v.picklist(PRIORITIES) }),
  /** elements that are new are named by their names; a new campaign is paused, for it has no ads yet */
  v.object({
    ...{ kind: v.picklist(['add campaign', 'remove campaign']), name: text },
    budgetMicros: v.pipe(micros, v.minValue(1)),
  }),
  v.object({ kind: v.picklist(['add ad group', 'remove ad group']), campaign: text, name: text }),
  v.object({
    ...{ kind: v.picklist(['add keyword', 'remove keyword']), campaign: text, adGroup: text, text, match },
    bidMicros: v.pipe(micros, v.minValue(0)),
  }),
]);
export type PlatformChange = v.InferOutput<typeof PlatformChangeSchema>;

export const ChangesRequestSchema = v.object({
  changes: v.pipe(
    v.array(v.object({ key: id, change: PlatformChangeSchema })),
    v.minLength(1),
    v.maxLength(MOST_CHANGES_IN_BATCH),
  ),
});

const ChangeAnswerSchema = v.variant('outcome', [
  v.object({ key: id, outcome: v.literal('applied'), id: v.nullable(v.string()) }),
  v.object({ key: id, outcome: v.literal('refused'), code: v.string(), text: v.string() }),
  /** nothing was done, and nothing is wrong with it: the same key may come again later */
  v.object({ key: id, outcome: v.literal('put off'), text: v.string() }),
]);
export type ChangeAnswer = v.InferOutput<typeof ChangeAnswerSchema>;
export const ChangesAnswerSchema = v.object({ revision: v.number(), answers: v.array(ChangeAnswerSchema) });
export type ChangesAnswer = v.InferOutput<typeof ChangesAnswerSchema>;

/** Who changed an element last, and on what day of the platform's, where it says so. */
const CHANGED = {
  changedBy: v.optional(v.nullable(text)),
  changedAt: v.optional(v.nullable(day)),
};

/** An account as the platform lists it. */
const PlatformAccountSchema = v.object({ id, name: text, currency: v.string() });
export type PlatformAccount = v.InferOutput<typeof PlatformAccountSchema>;
export const AccountsAnswerSchema = v.object({ accounts: v.array(PlatformAccountSchema) });

export const CampaignSchema = v.object({
  id,
  name: text,
  status,
  channel: v.string(),
  location: v.array(v.string()),
  audience: v.array(v.string()),
  device: v.array(v.string()),
  language: v.array(v.string()),
  budgetMicros: micros,
  /** name of the budget that the campaign shares with others, if it does */
  sharedBudget: v.nullable(v.string()),
  endDate: v.nullable(day),
  labels: v.optional(v.array(text), []),
  /** of campaigns that could serve the same query, the one of the highest is asked first; null: it has none */
  priority: v.optional(v.nullable(v.picklist(PRIORITIES)), null),
  ...CHANGED,
});
export const AdGroupSchema = v.object({ id, campaignId: id, name: text, status });
export const KeywordSchema = v.object({
  id,
  adGroupId: id,
  text,
  match: v.picklist(['broad', 'phrase', 'exact', 'automatic']),
  status,
  bidMicros: micros,
  /** the day on which its bid, status or match type was changed last */
  changedOn: v.optional(v.nullable(day), null),
  ...CHANGED,
});
export const ListSchema = v.object({
  ...{ id, name: text, status, holds: v.optional(listContent, 'words') },
  ...CHANGED,
});
export const HangingSchema = v.object({
  listId: id,
  /** null is the whole account */
  campaignId: v.nullable(id),
  status,
  /** the first day on which it hung there */
  since: v.optional(v.nullable(day), null),
  ...CHANGED,
});
/** A site, an app or a channel in a placement list. */
export const PlacementSchema = v.object({
  ...{ id, address: text, listId: id, createdAt: v.string(), status },
  ...CHANGED,
});
export const NegativeSchema = v.object({
  ...{ id, text, match, place, createdAt: v.string(), status },
  ...CHANGED,
});
/** A product whose page no ad of the place may stand on. */
export const ExclusionSchema = v.object({
  id,
  code: text,
  place: productPlace,
  createdAt: v.string(),
  status,
  ...CHANGED,
});

export const StructureSchema = v.object({
  campaigns: v.array(CampaignSchema),
  adGroups: v.array(AdGroupSchema),
  keywords: v.array(KeywordSchema),
  lists: v.array(ListSchema),
  hangings: v.array(HangingSchema),
  negatives: v.array(NegativeSchema),
  exclusions: v.optional(v.array(ExclusionSchema), []),
  placements: v.optional(v.array(PlacementSchema), []),
});
export type Structure = v.InferOutput<typeof StructureSchema>;

export const StructureAnswerSchema = v.object({
  revision: v.number(),
  /** the platform's day in progress */
  today: day,
  ...StructureSchema.entries,
});
export type StructureAnswer = v.InferOutput<typeof StructureAnswerSchema>;

export const ClockRequestSchema = v.object({
  days: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(31)),
});
export const ClockAnswerSchema = v.object({ today: day });

/** What can be made to go wrong on the stand-in, to see what comes of it. */
export const FAULTS = [
  /** answers 429 to changes */
  'asks to slow down',
  /** answers 500 to changes */
  'fails',
  /** closes the connection before changes are made */
  'hangs up before',
  /** makes the changes and closes the connection without an answer */
  'hangs up after',
  /** takes some seconds to answer */
  'is slow',
  /** puts every third change off */
  'puts some off',
  /** refuses every third change for good */
  'refuses some',
  /** shows the account as it was when this was switched on */
  'shows old data',
  /** somebody else changes the account as well */
  'has another user',
] as const;
export type Fault = (typeof FAULTS)[number];
/** Which faults are on, and how many requests each still meets. */
export const FaultsSchema = v.object({
  faults: v.array(
    v.object({
      fault: v.picklist(FAULTS),
      times: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000)),
    }),
  ),
});
export type Faults = v.InferOutput<typeof FaultsSchema>;

/** How a query behaves: the truth that only the stand-in knows. */
export const QuerySchema = v.object({
  text,
  /** mean impressions a day */
  daily: v.number(),
  ctr: v.number(),
  cvr: v.number(),
  /** mean value of a conversion; 0 for an account without values */
  valueMicros: micros,
  /** the platform never shows this query by name */
  unreported: v.boolean(),
  /** what a click costs, unless the bid is lower */
  cpcMicros: micros,
  /** words that it means besides those it holds: by these a broad keyword matches, too */
  means: v.array(v.string()),
  /** ad groups that serve it without a keyword */
  automaticIn: v.array(id),
});
export type PlatformQuery = v.InferOutput<typeof QuerySchema>;

export const SeedRequestSchema = v.object({
  account: v.object({
    id,
    name: text,
    currency: v.pipe(v.string(), v.length(3)),
    seed: v.number(),
    firstDay: day,
    today: day,
  }),
  structure: StructureSchema,
  queries: v.array(QuerySchema),
  /** more queries follow, and then the order to make the traffic */
  isPart: v.optional(v.boolean()),
});
export const SeedTrafficSchema = v.object({ firstDay: day });
/** More queries of an account that is being seeded; `first` is the number of the first. */
export const SeedQueriesSchema = v.object({ first: v.number(), queries: v.array(QuerySchema) });
export type SeedRequest = v.InferOutput<typeof SeedRequestSchema>;
