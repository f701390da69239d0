import * as v from 'valibot';

const money = v.pipe(
  v.string(),
  v.trim(),
  v.regex(/^\d{1,9}([.,]\d{1,2})?$/, 'Give an amount such as 18.00.'),
  v.transform((text) => Math.round(Number(text.replace(',', '.')) * 1e6)),
);

const shared = {
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'The account needs a name.'), v.maxLength(80)),
  person: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Your name stands beside what you decide.'),
    v.maxLength(80),
  ),
  currency: v.pipe(
    v.string(),
    v.trim(),
    v.regex(/^[A-Za-z]{3}$/, 'Give a currency code of three letters.'),
    v.toUpperCase(),
  ),
};

/** A new account that is filled from files. */
export const NewAccountSchema = v.variant('steersBy', [
  v.object({ ...shared, steersBy: v.literal('CPA'), target: money }),
  v.object({
    ...shared,
    steersBy: v.literal('ACoS'),
    /** percent */
    target: v.pipe(
      v.string(),
      v.trim(),
      v.regex(/^\d{1,3}$/, 'Give a percentage such as 24.'),
      v.transform(Number),
    ),
  }),
]);

/** The stored form of a new account. */
export function toNewAccount(input: v.InferOutput<typeof NewAccountSchema>) {
  const slug =
    input.name
      .toLowerCase()
      .normalize('NFD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'account';
  return {
    slug,
    name: input.name,
    platformAccountId: slug,
    currency: input.currency,
    steersBy: input.steersBy,
    targetMicros: input.steersBy === 'CPA' ? input.target : null,
    targetAcos: input.steersBy === 'ACoS' ? input.target / 100 : null,
    productCodePattern: null,
  };
}
