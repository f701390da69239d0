import * as v from 'valibot';
import { SettingsSchema } from '@/contracts/account';
import { AccountLookSchema, SendingLimitsSchema } from '@/contracts/second-look';
import { exampleAmount, parseAmount } from '@/core';

/** Settings as they are typed: texts, held against what the account may be set to. */

const { entries } = SettingsSchema;

/** A number as it is typed, with a point or a comma. */
const typedNumber = <Wanted>(schema: v.GenericSchema<number, Wanted>) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.transform((text) => (text === '' ? NaN : Number(text.replace(',', '.')))),
    schema,
  );

export const TypedName = v.object({ name: entries.name.wrapped, currency: entries.currency.wrapped });
export const TypedSteering = v.object({
  steersBy: entries.steersBy.wrapped,
  target: entries.target.wrapped,
});
export const TypedDays = v.object({
  windowDays: typedNumber(entries.windowDays.wrapped),
  lagDays: typedNumber(entries.lagDays.wrapped),
});
export const TypedFileDays = v.object({ fileDays: typedNumber(entries.fileDays.wrapped) });
export const TypedLogDays = v.object({ logDays: typedNumber(entries.logDays.wrapped) });
/** A percentage as it is typed, set as a share. */
export const TypedTolerance = v.object({
  promotionTolerance: typedNumber(
    v.pipe(
      v.number(),
      v.transform((percent) => percent / 100),
      entries.promotionTolerance.wrapped,
    ),
  ),
});
export const TypedMatch = v.object({ defaultMatch: entries.defaultMatch.wrapped });
export const TypedPattern = v.object({ productCodePattern: entries.productCodePattern.wrapped });
export const TypedPlatform = v.object({ platformAccountId: v.string() });

/** From how many conversions on terms are protected; what is typed counts while it is on. */
export const TypedKeeper = v.variant('isOn', [
  v.object({
    isOn: v.literal(true),
    from: typedNumber(entries.keeperConversions.wrapped.wrapped),
  }),
  v.object({ isOn: v.literal(false), from: v.string() }),
]);

/** Words with commas between them. */
export const TypedBrands = v.object({
  words: v.pipe(
    v.string(),
    v.transform((text) => text.split(',').map((word) => word.trim())),
    entries.brandWords.wrapped,
  ),
});

export const TypedKinds = v.object({ conversionKinds: entries.conversionKinds.wrapped });

const limits = entries.limits.wrapped.entries;
export const TypedLimits = v.object({
  accountNegatives: typedNumber(limits.accountNegatives),
  listNegatives: typedNumber(limits.listNegatives),
  listPlacements: typedNumber(limits.listPlacements),
  listsOnCampaign: typedNumber(limits.listsOnCampaign),
  wordsInNegative: typedNumber(limits.wordsInNegative),
  charactersInNegative: typedNumber(limits.charactersInNegative),
});

/** A bound as it is typed; empty for none. */
const typedBound = (schema: v.GenericSchema<number | null, number | null>) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.transform((text) => (text === '' ? null : Number(text.replace(',', '.')))),
    schema,
  );

const look = AccountLookSchema.entries;
/** When a tray needs a second look; `cost` becomes micro-units of the currency. */
export const typedLook = (currency: string) =>
  v.object({
    always: v.boolean(),
    changes: typedBound(look.changes),
    cost: v.pipe(
      v.string(),
      v.trim(),
      v.transform((text) => (text === '' ? null : (parseAmount(text, currency) ?? NaN))),
      v.nullable(v.pipe(v.number(`Give an amount such as ${exampleAmount(currency)} ${currency}.`))),
      look.costMicros,
    ),
    people: v.array(
      v.object({
        person: v.number(),
        atOnce: typedBound(SendingLimitsSchema.entries.atOnce),
        in30Days: typedBound(SendingLimitsSchema.entries.in30Days),
      }),
    ),
  });
