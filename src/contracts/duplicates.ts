import * as v from 'valibot';
import { ChangeSchema, DaysQuerySchema, fewOf, MatchSchema, WindowSchema } from './common';
import { KnotSchema, LeftSchema, PileCountsSchema, PileSchema, UnjudgedLineSchema } from './knots';

/** Keywords that compete with each other: which are looked for, and what is known of them. */

/** How alike keywords are, from the same in everything to the same in other forms; each rung holds those before it. */
export const RUNGS = ['text and match type', 'text', 'words in any order', 'other forms'] as const;
export type Rung = (typeof RUNGS)[number];
export const NEARNESS = ['ad group', 'campaign', 'all'] as const;
export type Nearness = (typeof NEARNESS)[number];
/** effective statuses besides live ones (rules 5.1) */
export const OTHER_STATUSES = ['paused', 'ended', 'removed'] as const;
export type OtherStatus = (typeof OTHER_STATUSES)[number];

const percent = v.pipe(
  v.string(),
  v.regex(/^\d{1,3}$/, 'This is no percentage.'),
  v.transform(Number),
  v.minValue(50, 'A clear answer is likelier than not: 50 % or more.'),
  v.maxValue(100, 'Nothing is surer than 100 %.'),
);

export const DuplicatesQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  pile: PileSchema,
  alike: v.optional(v.picklist(RUNGS), 'text and match type'),
  near: v.optional(v.picklist(NEARNESS), 'all'),
  /** part of a campaign's name, or one of its labels */
  campaigns: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(200)), ''),
  /** statuses, parted by commas */
  besides: v.optional(
    v.pipe(
      v.string(),
      v.transform((text) => text.split(',').filter((one) => one !== '')),
      v.array(v.picklist(OTHER_STATUSES)),
    ),
    '',
  ),
  /** from so many percent on the answer is clear (rules 5.5) */
  sure: v.optional(percent, '90'),
});
export type DuplicatesQuery = v.InferOutput<typeof DuplicatesQuerySchema>;

export const DuplicateSheetQuerySchema = v.object({
  ...DuplicatesQuerySchema.entries,
  as: v.optional(v.picklist(['csv', 'xlsx'], 'Duplicates are saved as csv or xlsx.'), 'xlsx'),
});

const SameKeywordSchema = v.strictObject({
  ...{ id: v.string(), text: v.string(), match: MatchSchema },
  ...{ campaign: v.string(), adGroup: v.string() },
  status: v.picklist(['live', ...OTHER_STATUSES]),
  /** micro-units; null: not known */
  bidMicros: v.nullable(v.number()),
  /** by keyword reports, or of the terms that it served in the window (rules 5.7) */
  ...{ clicks: v.number(), costMicros: v.number(), conversions: v.number(), valueMicros: v.number() },
  /** 0..1 by keyword reports; null where they do not tell */
  impressionShare: v.nullable(v.number()),
  /** as the platform rates it; null where nothing tells */
  quality: v.nullable(v.number()),
  /** further kinds of conversion by their names */
  otherConversions: v.record(v.string(), v.number()),
  /** what one of its conversions can be expected to cost (rules 5.4); null where no rate is known */
  expectedMicros: v.nullable(v.number()),
  /** its rate, pulled to that of the group, 0..1 */
  cvr: v.number(),
});
export type SameKeyword = v.InferOutput<typeof SameKeywordSchema>;

const DuplicateLineSchema = v.strictObject({
  key: v.string(),
  /** the suggested survivor first */
  keywords: v.array(SameKeywordSchema),
  /** how many there are; more than are named */
  count: v.number(),
  /** of the suggestion, 0..1 (rules 5.5) */
  sure: v.number(),
  isClear: v.boolean(),
  left: LeftSchema,
});
export type DuplicateLine = v.InferOutput<typeof DuplicateLineSchema>;

export const DuplicatesViewSchema = v.strictObject({
  days: v.number(),
  /** days that keyword reports tell of, whose figures these are; null: figures of search terms */
  report: v.nullable(WindowSchema),
  /** groups on each rung, near as chosen, those that were left among them */
  rungs: v.strictObject(v.entriesFromList(RUNGS, v.number())),
  /** groups of the rung that was chosen */
  counts: PileCountsSchema,
  /** groups whose answer is clear */
  clear: v.number(),
  /** groups that the tray ends */
  inTray: v.number(),
  /** costliest first; no more than are read */
  lines: v.array(DuplicateLineSchema),
  apart: v.strictObject({
    /** of keywords that are the same, whose campaigns never meet */
    pairs: v.number(),
    splits: fewOf(
      v.strictObject({
        text: v.string(),
        by: v.array(v.picklist(['location', 'audience', 'device', 'language'])),
        /** campaigns of each part */
        parts: v.array(v.array(v.string())),
      }),
    ),
  }),
  unjudged: fewOf(UnjudgedLineSchema),
});
export type DuplicatesView = v.InferOutput<typeof DuplicatesViewSchema>;

/** Keywords of a group, parted by commas. */
const IdsSchema = v.pipe(
  v.string(),
  v.regex(/^\d{1,9}(,\d{1,9}){1,199}$/, 'Name two keywords or more, by their numbers.'),
  v.transform((text) => text.split(',')),
);
export const HandsOverQuerySchema = v.object({ ...DaysQuerySchema.entries, keywords: IdsSchema });

/** Sums over the terms that the other keywords of a group served. */
const ServedSchema = v.strictObject({
  ...{ terms: v.number(), clicks: v.number(), costMicros: v.number(), conversions: v.number() },
});
/** What each keyword would take over, if it were the one that stays. */
export const HandsOverViewSchema = v.strictObject({
  keywords: v.array(
    v.strictObject({
      id: v.string(),
      ...{ others: ServedSchema, takesOver: ServedSchema },
      /** terms of the others that a negative stops where it stands */
      stopped: fewOf(v.string()),
      /** terms of the others that it can not be served for, by its match type */
      outOfReach: fewOf(v.string()),
    }),
  ),
});
export type HandsOverView = v.InferOutput<typeof HandsOverViewSchema>;

/** What a sheet of duplicates says, to be looked at before it goes into the tray. */
export const DuplicateDecisionsSchema = v.strictObject({
  changes: v.array(
    v.strictObject({ change: ChangeSchema, said: v.string(), why: v.string(), knot: KnotSchema }),
  ),
  /** rows that say nothing, or to keep */
  kept: v.number(),
  undecided: v.number(),
  /** lines from 1 */
  unclear: v.array(v.strictObject({ line: v.number(), why: v.string() })),
});
export type DuplicateDecisions = v.InferOutput<typeof DuplicateDecisionsSchema>;
