import * as v from 'valibot';

/** When a tray is looked at by another person before it is sent. */

const bound = (what: string) =>
  v.nullable(
    v.pipe(
      v.number(`${what} is a number.`),
      v.integer(`${what} is a whole number.`),
      v.minValue(0, `${what} is 0 or more.`),
      v.maxValue(1_000_000, `${what} is at most 1,000,000.`),
    ),
  );

/** What a person may send without a second look: so many changes at once, so many within 30 days; null for any number. */
export const SendingLimitsSchema = v.strictObject({
  atOnce: bound('The number of changes at once'),
  in30Days: bound('The number of changes in 30 days'),
});
export type SendingLimits = v.InferOutput<typeof SendingLimitsSchema>;
export const NO_LIMITS: SendingLimits = { atOnce: null, in30Days: null };

/** What the account asks for, whoever sends: always, or above so many changes, or above so much that they stop. */
export const AccountLookSchema = v.strictObject({
  always: v.boolean(),
  changes: bound('The number of changes'),
  /** spent in the window by what the tray stops, micro-units */
  costMicros: v.nullable(
    v.pipe(v.number(), v.integer(), v.minValue(0, 'The amount is 0 or more.'), v.maxValue(1e15)),
  ),
});
export type AccountLook = v.InferOutput<typeof AccountLookSchema>;

export const LookRulesSchema = v.strictObject({
  ...AccountLookSchema.entries,
  people: v.pipe(
    v.array(
      v.strictObject({
        person: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(2_147_483_647)),
        ...SendingLimitsSchema.entries,
      }),
    ),
    v.maxLength(1_000),
  ),
});
export type LookRules = v.InferOutput<typeof LookRulesSchema>;

/** Puts the tray up for a second look. */
export const PutUpSchema = v.object({
  note: v.pipe(v.string(), v.trim(), v.maxLength(500, 'A note holds 500 characters.')),
});
/** Yes to these changes, and to none that came meanwhile. */
export const YesSchema = v.object({
  changes: v.pipe(
    v.array(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(2_147_483_647))),
    v.minLength(1, 'There is no change to say yes to.'),
    v.maxLength(200_000),
  ),
});

const byAt = { by: v.string(), isMine: v.boolean(), at: v.string() };

/** What the tray waits for, as one person sees it. */
export const SecondLookSchema = v.strictObject({
  /** why this person may not send the tray without a second look; empty where he or she may */
  asks: v.array(v.string()),
  up: v.nullable(
    v.strictObject({
      ...byAt,
      note: v.string(),
      yes: v.nullable(v.strictObject(byAt)),
      /** changes that came, or were changed, since somebody said yes */
      unseen: v.array(v.number()),
    }),
  ),
  /** whether the tray may be sent by whoever may send */
  isFree: v.boolean(),
  /** whether this person may say yes to what is up */
  mayYes: v.boolean(),
  /** who may say yes; where nothing is up, once this person has put it up */
  whoMay: v.array(v.string()),
});
export type SecondLook = v.InferOutput<typeof SecondLookSchema>;
