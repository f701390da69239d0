import * as v from 'valibot';
import { PRIORITIES, type Change, type Figures, type Place, type Severity } from '@/core';
import { DaysTextSchema } from './days';

export const MatchSchema = v.picklist(['broad', 'phrase', 'exact']);
export const DaySchema = v.pipe(v.string(), v.isoDate());
/** The number under which something is stored. */
export const StoredNumberSchema = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(2_147_483_647));
/** Days of a window, in the body of a request. */
export const DaysSchema = v.optional(DaysTextSchema);
/** The same in an address. */
export const DaysQuerySchema = v.object({ days: v.optional(DaysTextSchema) });
const IdSchema = v.pipe(v.string(), v.minLength(1), v.maxLength(80));

export const PlaceSchema: v.GenericSchema<Place, Place> = v.variant('kind', [
  v.object({ kind: v.literal('account'), id: v.null() }),
  v.object({ kind: v.picklist(['campaign', 'adGroup', 'list']), id: IdSchema }),
]);

const hanging = { listId: IdSchema, campaignId: v.nullable(IdSchema) };
const holds = v.optional(v.picklist(['words', 'placements']));
const placement = { listId: IdSchema, address: v.pipe(v.string(), v.minLength(1), v.maxLength(500)) };
const product = { code: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(400)), place: PlaceSchema };
const keyword = { keywordId: IdSchema };
const BidSchema = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1e12));
export const ListNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A list needs a name.'),
  v.maxLength(120, 'A name may hold 120 characters.'),
);
const list = { listId: IdSchema, name: ListNameSchema };

/** The name of a campaign or an ad group. */
export const ElementNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A name is needed.'),
  v.maxLength(120, 'A name may hold 120 characters.'),
);
const negative = {
  ...{ text: v.pipe(v.string(), v.maxLength(500)), match: MatchSchema, place: PlaceSchema },
  leavesTo: v.optional(
    v.pipe(
      v.array(v.object({ campaign: ElementNameSchema, adGroup: ElementNameSchema, match: MatchSchema })),
      v.maxLength(3),
    ),
  ),
};
const budgetMicros = v.pipe(BidSchema, v.minValue(10_000, 'A budget is needed.'));
const BudgetNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A shared budget needs a name.'),
  v.maxLength(120, 'A name may hold 120 characters.'),
);
const newKeyword = {
  ...{ campaign: ElementNameSchema, adGroup: ElementNameSchema },
  ...{ text: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(200)), match: MatchSchema },
  bidMicros: BidSchema,
};

/** The core's Change, as it crosses the wire. */
export const ChangeSchema: v.GenericSchema<Change, Change> = v.variant('kind', [
  v.object({ kind: v.literal('add negative'), ...negative }),
  v.object({ kind: v.literal('remove negative'), ...negative }),
  v.object({ kind: v.literal('make list'), ...list, holds }),
  v.object({ kind: v.literal('remove list'), ...list, holds }),
  v.object({ kind: v.literal('rename list'), ...list, was: v.string() }),
  v.object({ kind: v.literal('add placement'), ...placement }),
  v.object({ kind: v.literal('remove placement'), ...placement }),
  v.object({ kind: v.literal('hang list'), ...hanging }),
  v.object({ kind: v.literal('take down list'), ...hanging }),
  v.object({ kind: v.literal('exclude product'), ...product }),
  v.object({ kind: v.literal('readmit product'), ...product }),
  v.object({ kind: v.literal('set bid'), ...keyword, bidMicros: BidSchema, wasMicros: BidSchema }),
  v.object({ kind: v.literal('pause keyword'), ...keyword }),
  v.object({
    ...{ kind: v.literal('set budget'), campaignId: v.string() },
    ...{ budgetMicros, wasMicros: BidSchema },
  }),
  v.object({
    ...{ kind: v.picklist(['share budget', 'leave budget']), campaignId: IdSchema },
    ...{ budget: BudgetNameSchema, budgetMicros, ownMicros: budgetMicros },
  }),
  v.object({
    ...{ kind: v.literal('set priority'), campaignId: IdSchema },
    ...{ priority: v.picklist(PRIORITIES), was: v.picklist(PRIORITIES) },
  }),
  v.object({ kind: v.literal('run keyword'), ...keyword }),
  v.object({ kind: v.picklist(['add campaign', 'remove campaign']), name: ElementNameSchema, budgetMicros }),
  v.object({
    ...{ kind: v.picklist(['add ad group', 'remove ad group']), campaign: ElementNameSchema },
    name: ElementNameSchema,
  }),
  v.object({ kind: v.picklist(['add keyword', 'remove keyword']), ...newKeyword }),
]);

/** A figure that a source may leave out. */
const figure = v.nullable(v.number());
/** Figures of the core, as they cross the wire; money in micro-units. */
export const FIGURES = {
  ...{ impressions: figure, clicks: figure, costMicros: figure },
  ...{ conversions: figure, valueMicros: figure },
} satisfies Record<keyof Figures, typeof figure>;

/** Sums over terms, each once. */
export const WeightSchema = v.strictObject({ terms: v.number(), ...FIGURES });
export type Weight = v.InferOutput<typeof WeightSchema>;

/** What is held beside: of what did not run, nothing was spent. */
const BesideFiguresSchema = v.strictObject({
  ...{ clicks: v.number(), costMicros: v.number(), conversions: v.number() },
});
export type BesideFigures = v.InferOutput<typeof BesideFiguresSchema>;

/** Figures of the same thing in these days, and in others beside them. */
export const TwoWindowsSchema = v.strictObject({ now: BesideFiguresSchema, then: BesideFiguresSchema });
export type TwoWindows = v.InferOutput<typeof TwoWindowsSchema>;

/** Many things of which only the first are sent. */
export type Few<T> = { count: number; first: T[] };
export const fewOf = <S extends v.GenericSchema>(item: S) =>
  v.strictObject({ count: v.number(), first: v.array(item) });

/** A window, by its first and its last day. */
export const WindowSchema = v.strictObject({ from: DaySchema, to: DaySchema });
/** The same with its length, which counts both. */
export const LongWindowSchema = v.strictObject({ ...WindowSchema.entries, days: v.number() });

export const NamedSchema = v.strictObject({ id: v.string(), name: v.string() });
export const NegativeTextSchema = v.strictObject({ text: v.string(), match: MatchSchema });
/** What was said to a person who did something. */
export const SaidSchema = v.strictObject({ said: v.string() });
/** Nothing to say but that it was done. */
export const DoneSchema = v.strictObject({});

const TouchedKeywordSchema = v.strictObject({
  ...NegativeTextSchema.entries,
  ...{ adGroup: v.string(), campaign: v.string() },
});
/** Live keywords that something touches (rules 4), by how badly, worst first; none is an empty array. */
export const TouchedSchema = v.array(
  v.strictObject({
    severity: v.picklist(['shut out', 'narrowed', 'costly'] satisfies Severity[]),
    ...fewOf(TouchedKeywordSchema).entries,
  }),
);
export type Touched = v.InferOutput<typeof TouchedSchema>;

/** A negative where it stands, in words. */
export const NegativeInPlaceSchema = v.strictObject({
  ...NegativeTextSchema.entries,
  ...{ place: PlaceSchema, placeName: v.string() },
  /** in force only by a person's word so far: said to be done */
  isSaid: v.optional(v.boolean()),
});
export type NegativeInPlace = v.InferOutput<typeof NegativeInPlaceSchema>;

export const SteersBySchema = v.picklist(['CPA', 'ACoS']);

/** What every screen needs to know of the account. */
export const AccountSummarySchema = v.strictObject({
  ...{ slug: v.string(), name: v.string(), currency: v.string(), steersBy: SteersBySchema },
  ...{ targetMicros: v.nullable(v.number()), targetAcos: v.nullable(v.number()) },
  defaultMatch: MatchSchema,
  window: v.nullable(LongWindowSchema),
  dataDays: v.nullable(WindowSchema),
  lagDays: v.number(),
  platformDay: v.nullable(v.string()),
  /** whether a platform is connected: else a tray is handed over as a sheet */
  isConnected: v.boolean(),
  isRetired: v.boolean(),
});
export type AccountSummary = v.InferOutput<typeof AccountSummarySchema>;

/** The name of the campaign or ad group of rows whose report names none: nothing can be stopped there. */
export const NOT_GIVEN = 'not given';

/** The cookie that remembers who was chosen in the top strip. */
export const PERSON_COOKIE = 'gatepost-person';
