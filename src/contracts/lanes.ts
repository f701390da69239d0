import * as v from 'valibot';
import { ChangeSchema, DaySchema, DaysQuerySchema, NamedSchema } from './common';

/** Lane plans: campaigns in tiers, each for the queries that hold its entry terms (rules 10). */

const name = (what: string) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, `A ${what} needs a name.`),
    v.maxLength(80, 'A name may hold 80 characters.'),
  );

export const MOST_TIERS = 6;
export const MOST_ENTRY_TERMS = 2_000;

const StoredTierSchema = v.strictObject({
  name: name('tier'),
  /** ids of its campaigns */
  campaigns: v.pipe(
    v.array(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'This is no campaign.'))),
    v.minLength(1, 'A tier needs a campaign.'),
    v.maxLength(200, 'A tier has at most 200 campaigns.'),
  ),
  entryTerms: v.pipe(
    v.array(v.pipe(v.string(), v.trim(), v.maxLength(200, 'An entry term may hold 200 characters.'))),
    v.maxLength(MOST_ENTRY_TERMS, `A tier has at most ${MOST_ENTRY_TERMS.toLocaleString('en')} entry terms.`),
  ),
});
export const LanePlanSchema = v.strictObject({
  name: name('lane plan'),
  /** the one that is asked first comes first; it takes what no other takes */
  tiers: v.pipe(
    v.array(StoredTierSchema),
    v.minLength(2, 'A lane plan needs two tiers.'),
    v.maxLength(MOST_TIERS, `A lane plan has at most ${MOST_TIERS} tiers.`),
  ),
});
export type LanePlan = v.InferOutput<typeof LanePlanSchema>;

/** One plan becomes another: null before it is made, or once it is removed. */
export const SetLanePlanSchema = v.object({
  was: v.nullable(LanePlanSchema),
  plan: v.nullable(LanePlanSchema),
});
export const LanePlanSaidSchema = v.strictObject({ said: v.string(), key: v.nullable(v.string()) });

const key = v.pipe(v.string(), v.minLength(1), v.maxLength(200));
export const LanesQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  /** the plan that is shown; the first where nothing is said */
  plan: v.optional(key),
});
export type LanesQuery = v.InferOutput<typeof LanesQuerySchema>;

const BroughtSchema = v.strictObject({
  ...{ clicks: v.number(), costMicros: v.number() },
  conversions: v.nullable(v.number()),
});

const TierSchema = v.strictObject({
  name: v.string(),
  /** campaigns, or the ad group that is a seat */
  places: v.array(v.string()),
  /** ids of campaigns that it has, or is in */
  campaigns: v.array(v.string()),
  /** how early its campaigns are asked; empty where they have no priority */
  priorities: v.array(v.string()),
  /** of its live keywords, micro-units: the middle one; null where there is none */
  bidMicros: v.nullable(v.number()),
  entryTerms: v.number(),
  /** negatives that it needs, and those of them that are missing */
  ...{ needs: v.number(), missing: v.number() },
  isPaused: v.boolean(),
  /** days of the window on which it spent its budget */
  dryDays: v.array(DaySchema),
  /** as it served, and by the plan at the tiers' own rates */
  ...{ really: BroughtSchema, byPlan: BroughtSchema },
  /** cost of queries that it served and that are for another tier, micro-units */
  leaksMicros: v.number(),
});
export type TierView = v.InferOutput<typeof TierSchema>;

const LeakSchema = v.strictObject({
  query: v.string(),
  /** numbers of tiers: the one that the plan says, and the one that served it */
  ...{ own: v.number(), served: v.number() },
  ...BroughtSchema.entries,
  cause: v.picklist([
    'negative missing',
    'negative in the way',
    'entry term missing',
    'paused',
    'ran dry',
    'mended',
    'not taken',
  ]),
  /** the cause in words */
  because: v.string(),
  /** what mends it, for the tray */
  mends: v.array(ChangeSchema),
  /** an entry term that mends it in the plan, and the tier that it belongs to */
  entryTerm: v.nullable(v.strictObject({ text: v.string(), tier: v.number() })),
  /** why nothing here mends it; null where something does */
  noMend: v.nullable(v.string()),
});
export type Leak = v.InferOutput<typeof LeakSchema>;

const EntryTermSchema = v.strictObject({
  ...{ text: v.string(), tier: v.number() },
  /** of the queries that it lets in, as they were served, whoever served them */
  ...BroughtSchema.entries,
  /** names of earlier tiers in which it is missing as a negative */
  missingIn: v.array(v.string()),
  /** what is wrong with it; null where nothing is */
  fault: v.nullable(v.string()),
  /** ways in which it is written in queries that no tier but the first gets */
  variants: v.array(v.string()),
});
export type EntryTermLine = v.InferOutput<typeof EntryTermSchema>;

/** The most leaks that are sent. */
export const MOST_LEAKS = 1_000;

const ShownLanesSchema = v.strictObject({
  key: v.string(),
  name: v.string(),
  by: v.picklist(['entry terms', 'match type']),
  /** as it is kept; null of one that the seats of a group are */
  plan: v.nullable(LanePlanSchema),
  days: v.number(),
  tiers: v.array(TierSchema),
  /** the budget that all tiers share; null where they share none */
  budget: v.nullable(v.strictObject({ name: v.string(), micros: v.nullable(v.number()) })),
  /** what is wrong with the plan as a whole, in words */
  faults: v.array(v.string()),
  leaks: v.strictObject({ count: v.number(), costMicros: v.number(), first: v.array(LeakSchema) }),
  entryTerms: v.array(EntryTermSchema),
  /** the negatives that tiers need and do not have */
  missing: v.array(ChangeSchema),
  /** what makes all tiers pay out of one budget, and be asked in the order of the plan */
  ...{ sharing: v.array(ChangeSchema), ordering: v.array(ChangeSchema) },
});
export type ShownLanes = v.InferOutput<typeof ShownLanesSchema>;

export const LanesViewSchema = v.strictObject({
  plans: v.array(
    v.strictObject({ key: v.string(), name: v.string(), by: v.picklist(['entry terms', 'match type']) }),
  ),
  /** that a plan can name */
  campaigns: v.array(v.strictObject({ ...NamedSchema.entries, priority: v.nullable(v.string()) })),
  /** null where there is no plan */
  shown: v.nullable(ShownLanesSchema),
});
export type LanesView = v.InferOutput<typeof LanesViewSchema>;

export const WhereQuerySchema = v.object({
  plan: key,
  query: v.pipe(v.string(), v.trim(), v.minLength(1, 'Type a query.'), v.maxLength(500)),
  ...DaysQuerySchema.entries,
});
/** Where a query would go: by the plan, and as the tray leaves the account. */
export const WhereSchema = v.strictObject({
  /** number of the tier */
  byPlan: v.number(),
  entryTerm: v.nullable(v.string()),
  /** the first tier that does not stop it as things are; null: all do */
  asItIs: v.nullable(v.number()),
});
export type Where = v.InferOutput<typeof WhereSchema>;
