import * as v from 'valibot';
import { exampleAmount, faultOfCodePattern, isCurrency, MATCH_TYPES, normalise, parseAmount } from '@/core';
import { ElementNameSchema, MatchSchema, NamedSchema, SteersBySchema as steersBy } from './common';
import { LookRulesSchema } from './second-look';
import { MemberRoleSchema, MemberSchema, ROLES } from './roles';

/** An account's settings, and the people and accounts beside it. */

const name = (what: string) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, `${what} needs a name.`),
    v.maxLength(80, 'A name may hold 80 characters.'),
  );
const currency = v.pipe(
  v.string(),
  v.trim(),
  v.toUpperCase(),
  v.check(isCurrency, 'Give a currency by its code of three letters, such as EUR, JPY or KWD.'),
);
/** As it is typed: an amount of the currency, or a percentage; empty for none. */
const target = v.pipe(v.string(), v.trim(), v.maxLength(20, 'A target is a short number.'));

export const PersonSchema = v.object({
  name: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Your name stands beside what you decide.'),
    v.maxLength(80),
  ),
});
/** Somebody who is to work in the account from now on. */
export const NewMemberSchema = v.object({ ...PersonSchema.entries, role: v.picklist(ROLES) });
/** The name, typed again, of a person who is removed for good. */
export const ForgetSchema = v.object({ name: v.pipe(v.string(), v.maxLength(80)) });
export const RoleRequestSchema = v.object({ role: MemberRoleSchema });
export const RetireSchema = v.object({ isRetired: v.boolean() });

/** A new account that is filled from files. */
export const NewAccountSchema = v.object({
  ...{ name: name('The account'), currency, steersBy, target },
  /** who adds it, where nobody is known yet */
  person: v.optional(PersonSchema.entries.name),
});
export type NewAccountRequest = v.InferOutput<typeof NewAccountSchema>;

const whole = (least: number, most: number, what: string) =>
  v.pipe(
    v.number(`${what} is a number.`),
    v.integer(`${what} is a whole number.`),
    v.minValue(least, `${what} is at least ${least}.`),
    v.maxValue(most, `${what} is at most ${most.toLocaleString('en')}.`),
  );
const limit = (what: string) => whole(1, 10_000_000, what);

export const LimitsSchema = v.object({
  accountNegatives: limit('The number of negatives on the account'),
  listNegatives: limit('The number of negatives in a list'),
  listPlacements: limit('The number of placements in a list'),
  listsOnCampaign: limit('The number of lists on a campaign'),
  wordsInNegative: whole(1, 100, 'The number of words'),
  charactersInNegative: whole(1, 1_000, 'The number of characters'),
});

const PatternSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(200, 'A pattern may hold 200 characters.'),
  v.rawCheck(({ dataset, addIssue }) => {
    const message = dataset.typed ? faultOfCodePattern(dataset.value) : undefined;
    if (message !== undefined) addIssue({ message });
  }),
);

/** Names of the advertiser, normalised (rules 1.1), each once. */
const BrandWordsSchema = v.pipe(
  v.array(v.pipe(v.string(), v.maxLength(80, 'A brand word may hold 80 characters.'))),
  v.maxLength(200, 'An account may have 200 brand words.'),
  v.transform((words) => [...new Set(words.map(normalise).filter((word) => word !== ''))]),
);

/** Names of kinds of conversion, each once, as keyword reports head them. */
const ConversionKindsSchema = v.pipe(
  v.array(v.pipe(v.string(), v.minLength(1), v.maxLength(500))),
  v.maxLength(50, 'No more than 50 kinds of conversion count.'),
  v.transform((kinds) => [...new Set(kinds)]),
);

/** What is to be set; what is left out stays. Each field is set by itself. */
export const SettingsSchema = v.partial(
  v.object({
    ...{ name: name('The account'), currency, steersBy, target },
    windowDays: whole(1, 366, 'The window'),
    lagDays: whole(0, 60, 'The lag'),
    /** a share: 0.01 is one percentage point */
    promotionTolerance: v.pipe(
      v.number('The tolerance is a percentage.'),
      v.minValue(0, 'The tolerance is at least 0 %.'),
      v.maxValue(10, 'The tolerance is at most 1,000 %.'),
    ),
    fileDays: whole(1, 3_650, 'The time that files are kept'),
    logDays: whole(1, 3_650, 'The time that logs are kept'),
    defaultMatch: v.picklist(MATCH_TYPES),
    keeperConversions: v.nullable(
      v.pipe(
        v.number('Give a number of conversions.'),
        v.minValue(0.01, 'A term is protected from some conversions on: give a number above 0.'),
        v.maxValue(1_000_000),
      ),
    ),
    /** empty for none */
    productCodePattern: PatternSchema,
    brandWords: BrandWordsSchema,
    conversionKinds: ConversionKindsSchema,
    limits: LimitsSchema,
    /** the account on the platform; null takes the connection away */
    platformAccountId: v.nullable(v.pipe(v.string(), v.minLength(1), v.maxLength(200))),
  }),
);
export type SettingsRequest = v.InferOutput<typeof SettingsSchema>;

const id = v.pipe(v.string(), v.regex(/^\d{1,10}$/, 'An id is a number.'));

/** The ad groups of exact, phrase and broad keywords, by name: they may still wait in the tray. */
export const SeatsSchema = v.partial(
  v.strictObject(
    v.entriesFromList(
      MATCH_TYPES,
      v.strictObject({ campaign: ElementNameSchema, adGroup: ElementNameSchema }),
    ),
  ),
);
export type SeatsByName = v.InferOutput<typeof SeatsSchema>;

/** All targets that campaigns and product groups have of their own. */
export const TargetsSchema = v.object({
  campaigns: v.pipe(v.array(v.object({ campaignId: id, target })), v.maxLength(5_000)),
  productGroups: v.pipe(
    v.array(
      v.object({
        name: name('The product group'),
        target,
        adGroupIds: v.pipe(v.array(id), v.maxLength(20_000)),
        /** those that it has, where nothing is said */
        seats: v.optional(SeatsSchema),
      }),
    ),
    v.maxLength(2_000),
  ),
});
export type TargetsRequest = v.InferOutput<typeof TargetsSchema>;

export const PatternQuerySchema = v.object({ pattern: PatternSchema });
/** Which search terms a pattern of product codes catches. */
export const CodesAnswerSchema = v.strictObject({
  ...{ caught: v.number(), of: v.number(), first: v.array(v.string()) },
});
export type CodesAnswer = v.InferOutput<typeof CodesAnswerSchema>;
/** What was set, a sentence a field. */
export const SettingsOutcomeSchema = v.strictObject({ said: v.array(v.string()) });
export const AddedAccountSchema = v.strictObject({ slug: v.string() });

/** A target as it is typed. @returns micro-units of the currency, or a fraction; null for none; what is wrong with it */
export function parseTarget(
  text: string,
  { steersBy, currency }: { steersBy: 'CPA' | 'ACoS'; currency: string },
): { targetMicros: number | null } | { targetAcos: number | null } | { fault: string } {
  if (steersBy === 'CPA') {
    if (text === '') return { targetMicros: null };
    const micros = parseAmount(text, currency);
    if (micros !== undefined && micros > 0) return { targetMicros: micros };
    return { fault: `Give the target CPA as an amount such as ${exampleAmount(currency)} ${currency}.` };
  }
  if (text === '') return { targetAcos: null };
  const percent = /^\d{1,4}([.,]\d{1,2})?$/.test(text) ? Number(text.replace(',', '.')) : NaN;
  if (percent > 0 && percent <= 1_000) return { targetAcos: percent / 100 };
  return { fault: 'Give the target ACoS as a percentage such as 24.' };
}

const ownTarget = { targetMicros: v.nullable(v.number()), targetAcos: v.nullable(v.number()) };
export type OwnTargetView = { targetMicros: number | null; targetAcos: number | null };

/** Everything on the Account screen. */
export const AccountViewSchema = v.strictObject({
  settings: v.strictObject({
    ...{ name: v.string(), currency: v.string(), steersBy, ...ownTarget },
    ...{
      windowDays: v.number(),
      lagDays: v.number(),
      fileDays: v.number(),
      logDays: v.number(),
      defaultMatch: MatchSchema,
    },
    ...{
      keeperConversions: v.nullable(v.number()),
      promotionTolerance: v.number(),
      productCodePattern: v.string(),
    },
    ...{ brandWords: v.array(v.string()), conversionKinds: v.array(v.string()) },
    ...{ limits: v.strictObject(LimitsSchema.entries), platformAccountId: v.nullable(v.string()) },
  }),
  isRetired: v.boolean(),
  /** further kinds of conversion that keyword reports have told of */
  kindsThere: v.array(v.string()),
  /** whether figures are loaded: then the currency is fixed */
  hasFigures: v.boolean(),
  campaigns: v.array(v.strictObject({ ...NamedSchema.entries, status: v.string(), ...ownTarget })),
  productGroups: v.array(
    v.strictObject({ name: v.string(), adGroupIds: v.array(v.string()), seats: SeatsSchema, ...ownTarget }),
  ),
  adGroups: v.array(v.strictObject({ ...NamedSchema.entries, campaign: v.string() })),
  people: v.array(MemberSchema),
  secondLook: LookRulesSchema,
  accounts: v.array(v.strictObject({ slug: v.string(), name: v.string(), isRetired: v.boolean() })),
});
export type AccountView = v.InferOutput<typeof AccountViewSchema>;

/** Accounts that the platform has; `takenBy` names the account here that one is brought into. */
export const PlatformAccountsAnswerSchema = v.strictObject({
  accounts: v.array(
    v.strictObject({
      ...{ ...NamedSchema.entries, currency: v.string(), takenBy: v.nullable(v.string()) },
    }),
  ),
});
export type PlatformAccountsAnswer = v.InferOutput<typeof PlatformAccountsAnswerSchema>;

/** What waits for somebody in each screen; the rail shows it. */
export const OpenCountsSchema = v.strictObject({
  /** files that were brought and not loaded, or failed */
  intake: v.number(),
  /** terms that nobody has decided about and that surely miss their target */
  sift: v.number(),
  /** what others changed on the platform */
  lists: v.number(),
  /** conflicts that are neither meant so nor left */
  untangle: v.number(),
  /** what rules propose, and nobody has decided */
  rules: v.number(),
  /** changes that were sent or handed over, and were not read back yet */
  ledger: v.number(),
  /** 1 while there is no target: nothing is told of terms that miss it */
  account: v.number(),
});
export type OpenCounts = v.InferOutput<typeof OpenCountsSchema>;
