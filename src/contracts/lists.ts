import * as v from 'valibot';
import type { HangRule } from '@/core';
import {
  fewOf,
  ListNameSchema,
  LongWindowSchema,
  MatchSchema,
  NamedSchema,
  NegativeTextSchema,
  StoredNumberSchema,
  TouchedSchema,
  TwoWindowsSchema,
  WeightSchema,
} from './common';

/** Shared lists: what the screen Lists shows, and what is asked of it. */

export const IdSchema = v.pipe(v.string(), v.minLength(1), v.maxLength(80));
export const AddressSchema = v.pipe(v.string(), v.minLength(1), v.maxLength(500));
const entry = v.object({ text: v.pipe(v.string(), v.minLength(1), v.maxLength(500)), match: MatchSchema });
export const EntriesSchema = v.pipe(
  v.array(entry),
  v.minLength(1, 'Mark an entry first.'),
  v.maxLength(20_000),
);
const words = v.pipe(
  v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120))),
  v.maxLength(20),
);

export const HangRuleSchema = v.object({
  nameHolds: v.optional(words, []),
  nameLacks: v.optional(words, []),
  statuses: v.optional(words, []),
  channels: v.optional(words, []),
  labels: v.optional(words, []),
});

/** A rule as it is stored: a part that says nothing may be missing. */
const KnownRuleSchema: v.GenericSchema<HangRule, HangRule> = v.strictObject(
  v.entriesFromList(
    ['nameHolds', 'nameLacks', 'statuses', 'channels', 'labels'],
    v.optional(v.array(v.string())),
  ),
);

const ListCampaignSchema = v.strictObject({
  ...{ id: v.string(), name: v.string(), status: v.string(), channel: v.nullable(v.string()) },
  labels: v.array(v.string()),
});
export type ListCampaign = v.InferOutput<typeof ListCampaignSchema>;

/** Live keywords that a list shuts out or narrows, or would if it hung there; only campaigns that have such. */
const ListHurtsSchema = v.strictObject({
  /** indexes into the campaigns */
  campaign: v.array(v.number()),
  keywords: v.array(v.number()),
});
export type ListHurts = v.InferOutput<typeof ListHurtsSchema>;

export const HoldsSchema = v.picklist(['words', 'placements']);

const ListLineSchema = v.strictObject({
  ...{ id: v.string(), name: v.string(), holds: HoldsSchema },
  /** made in the tray, not sent yet */
  isNew: v.boolean(),
  /** negatives or placements, as the tray leaves it */
  entries: v.number(),
  room: v.number(),
  /** where it hangs as sent: indexes of campaigns, or the whole account */
  hungOn: v.union([v.array(v.number()), v.literal('account')]),
  /** hanging in the tray; the campaign null is the whole account */
  drafted: v.array(v.strictObject({ campaign: v.nullable(v.number()), hang: v.boolean() })),
  hurts: ListHurtsSchema,
  rules: v.array(
    v.strictObject({
      ...{ id: v.number(), rule: KnownRuleSchema, said: v.string(), by: v.string() },
      except: v.array(v.number()),
    }),
  ),
  /** indexes of the campaigns on which a rule wants it and it does not hang, nor will */
  wanted: v.array(v.number()),
  /** somebody else changed it on the platform, and nobody has looked at that yet */
  waits: v.boolean(),
});
export type ListLine = v.InferOutput<typeof ListLineSchema>;

const VersionLineSchema = v.strictObject({
  ...{ id: v.number(), at: v.string(), by: v.nullable(v.string()) },
  /** the day on which it was changed on the platform, where that is known */
  on: v.nullable(v.string()),
  what: v.picklist(['made', 'changed', 'removed']),
  state: v.picklist(['own', 'waits', 'taken over', 'undone']),
  /** the difference in words: the name, the counts, the first of each */
  said: v.array(v.string()),
});
export type VersionLine = v.InferOutput<typeof VersionLineSchema>;
const WaitingVersionSchema = v.strictObject({
  ...VersionLineSchema.entries,
  ...{ listId: v.string(), listName: v.string(), isThere: v.boolean() },
});
export const HistoryViewSchema = v.strictObject({ list: NamedSchema, versions: v.array(VersionLineSchema) });
export type HistoryView = v.InferOutput<typeof HistoryViewSchema>;

export const ListsViewSchema = v.strictObject({
  window: LongWindowSchema,
  campaigns: v.array(ListCampaignSchema),
  lists: v.array(ListLineSchema),
  accountWide: v.strictObject({ used: v.number(), most: v.number() }),
  waiting: v.array(WaitingVersionSchema),
  /** what others changed on the platform outside lists, and nobody has looked at yet, the newest first */
  outside: v.array(
    v.strictObject({
      ...{ id: v.number(), at: v.string(), said: v.string() },
      /** who, and on what day, where the platform says so */
      ...{ by: v.nullable(v.string()), on: v.nullable(v.string()) },
    }),
  ),
});
export type ListsView = v.InferOutput<typeof ListsViewSchema>;

/** What others changed outside lists, to be taken over or undone. */
export const OutsideSchema = v.object({
  ids: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000)),
  /** the undo would stop protected terms, and is wanted for this reason */
  forcedBecause: v.optional(v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500))),
});

/** What a list stopped, told from the days before it could: what is stopped is never reported. */
export const StoppedSchema = v.strictObject({
  ...{ terms: v.number(), clicks: v.number(), costMicros: v.number() },
  /** of them, those that converted before they were stopped: stopped by mistake, perhaps */
  ...{ returningTerms: v.number(), conversions: v.number() },
  /** places (an entry on a campaign) that have acted since before the first day of data, so that nothing is known */
  ...{ unknown: v.number(), known: v.number() },
});
export type Stopped = v.InferOutput<typeof StoppedSchema>;

const ListHealthSchema = v.strictObject({
  stopped: StoppedSchema,
  redundant: v.number(),
  /** isKnown: told by a read-back; else it is the day of the newest entry */
  last: v.nullable(v.strictObject({ at: v.string(), by: v.nullable(v.string()), isKnown: v.boolean() })),
});
export type ListHealth = v.InferOutput<typeof ListHealthSchema>;
/** What the terms of each list cost where it hangs, in two windows. */
export const ListsBesideSchema = v.strictObject({ lists: v.record(v.string(), TwoWindowsSchema) });
export type ListsBeside = v.InferOutput<typeof ListsBesideSchema>;

export const ListsHealthSchema = v.strictObject({ lists: v.record(v.string(), ListHealthSchema) });
export type ListsHealth = v.InferOutput<typeof ListsHealthSchema>;

/** Lists and campaigns whose hanging is thought of: all pairs of them. */
export const HangingsQuerySchema = v.object({
  lists: v.pipe(v.array(IdSchema), v.minLength(1), v.maxLength(500)),
  campaigns: v.union([v.literal('account'), v.pipe(v.array(IdSchema), v.minLength(1), v.maxLength(5_000))]),
  hang: v.boolean(),
});
export type HangingsQuery = v.InferOutput<typeof HangingsQuerySchema>;

export const HangingsAnswerSchema = v.strictObject({
  /** the changes that it comes to: pairs that are so already are left out */
  changes: v.number(),
  /** what it would stop (or, taken down, open again), each term once */
  weight: WeightSchema,
  touched: TouchedSchema,
  protectedTerms: fewOf(v.string()),
  /** what it would do in each campaign, the most spend first */
  byCampaign: v.array(
    v.strictObject({
      ...{ campaignId: v.string(), name: v.string(), weight: WeightSchema, hurts: v.boolean() },
    }),
  ),
  /** campaigns where a live keyword would be touched or a converting term stopped, the worst first */
  hurt: fewOf(
    v.strictObject({
      ...{ campaignId: v.string(), name: v.string(), weight: WeightSchema, touched: TouchedSchema },
    }),
  ),
});
export type HangingsAnswer = v.InferOutput<typeof HangingsAnswerSchema>;

/** A list on one campaign, and the entries that hurt there. */
export const CellAnswerSchema = v.strictObject({
  list: v.strictObject({ ...NamedSchema.entries, holds: HoldsSchema }),
  campaign: NamedSchema,
  hangs: v.boolean(),
  /** 'account': it hangs on the whole account */
  by: v.nullable(v.picklist(['itself', 'account'])),
  /** it hangs only by a person's word so far */
  isSaid: v.boolean(),
  /** since when, where that is known */
  since: v.nullable(v.string()),
  /** what is to be known of the campaign before anything is stopped there */
  heed: v.nullable(v.string()),
  weight: WeightSchema,
  touched: TouchedSchema,
  protectedTerms: fewOf(v.string()),
  /** entries that shut out or narrow live keywords there, with the keywords, worst first */
  faults: fewOf(v.strictObject({ entry: NegativeTextSchema, keywords: TouchedSchema, stops: WeightSchema })),
});
export type CellAnswer = v.InferOutput<typeof CellAnswerSchema>;

export const ReachesSchema = v.strictObject({ everywhere: v.boolean(), campaigns: v.array(v.string()) });
export const CouldBeViewSchema = v.strictObject({
  sets: v.array(
    v.strictObject({
      ...{ entries: v.array(NegativeTextSchema), campaigns: v.array(NamedSchema), saves: v.number() },
    }),
  ),
});
export type CouldBeView = v.InferOutput<typeof CouldBeViewSchema>;
const negatives = v.array(NegativeTextSchema);
export const CompareViewSchema = v.strictObject({
  ...{
    first: NamedSchema,
    second: NamedSchema,
    onlyFirst: negatives,
    onlySecond: negatives,
    both: negatives,
  },
  covered: v.array(
    v.strictObject({
      ...{ entry: NegativeTextSchema, in: v.picklist(['first', 'second']), coveredBy: NegativeTextSchema },
    }),
  ),
});
export type CompareView = v.InferOutput<typeof CompareViewSchema>;
export const ThemesViewSchema = v.strictObject({
  parts: v.array(v.strictObject({ theme: v.nullable(v.string()), entries: negatives })),
});
export type ThemesView = v.InferOutput<typeof ThemesViewSchema>;

/** Lists as a file of our own (docs/list-files.md). */
export const ListFileSchema = v.object({
  gatepost: v.literal('lists'),
  version: v.literal(1),
  lists: v.pipe(
    v.array(
      v.object({
        name: ListNameSchema,
        holds: v.optional(v.picklist(['words', 'placements']), 'words'),
        entries: v.optional(v.array(entry), []),
        placements: v.optional(v.array(AddressSchema), []),
      }),
    ),
    v.minLength(1, 'The file holds no list.'),
  ),
});
export type ListFile = v.InferOutput<typeof ListFileSchema>;
/** A file as lines that can be looked at before they are taken. */
export const ReadListFileSchema = v.strictObject({
  lists: v.array(v.strictObject({ name: v.nullable(v.string()), holds: HoldsSchema, text: v.string() })),
});
export type ReadListFile = v.InferOutput<typeof ReadListFileSchema>;

export const NewHangRuleSchema = v.object({ list: IdSchema, rule: HangRuleSchema });
/** The number under which something is stored from now on. */
export const StoredSchema = v.strictObject({ id: v.number() });
export const RuleExceptionSchema = v.object({ campaign: IdSchema, isOut: v.boolean() });
