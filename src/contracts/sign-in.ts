import * as v from 'valibot';

/** A password has at least so many characters. */
export const LEAST_PASSWORD = 10;

const email = v.pipe(
  v.string(),
  v.trim(),
  v.toLowerCase(),
  v.maxLength(200),
  v.email('Give an e-mail address, such as maren@larkfell.example.'),
);
const password = v.pipe(
  v.string(),
  v.minLength(LEAST_PASSWORD, `A password has at least ${LEAST_PASSWORD} characters.`),
  v.maxLength(128, 'A password has at most 128 characters.'),
);

/** What is typed to sign in; what a password must be is asked only where one is set. */
export const SignInSchema = v.object({
  email: v.pipe(v.string(), v.trim(), v.toLowerCase(), v.maxLength(200)),
  password: v.pipe(v.string(), v.maxLength(128)),
});
export const SignedInSchema = v.strictObject({ is: v.picklist(['signed in', 'asked for a code', 'set']) });
/** Six digits of the second factor, or one of the spare codes that count once. */
export const CodeSchema = v.object({
  code: v.pipe(
    v.string(),
    v.trim(),
    v.regex(
      /^(\d{6}|[A-Za-z0-9]{5}-[A-Za-z0-9]{5})$/,
      'A code has six digits; a spare one looks like aB3dE-6fGh9.',
    ),
  ),
});

/** Another password, set by oneself. */
export const ChangePasswordSchema = v.object({
  current: v.pipe(v.string(), v.maxLength(128)),
  next: password,
});
export const OwnPasswordSchema = v.object({ password: v.pipe(v.string(), v.maxLength(128)) });
/** A second factor that is being set up; shown once. */
export const NewFactorSchema = v.strictObject({ uri: v.string(), spareCodes: v.array(v.string()) });

const eventSchema = v.strictObject({
  id: v.string(),
  what: v.string(),
  who: v.nullable(v.string()),
  at: v.string(),
});
export type SignInLine = v.InferOutput<typeof eventSchema>;

/** What oneself has set up to sign in; null where nobody signs in here. */
export const YouSchema = v.strictObject({
  name: v.string(),
  signsIn: v.nullable(
    v.strictObject({
      email: v.string(),
      hasFactor: v.boolean(),
      sessions: v.array(
        v.strictObject({
          ...{ id: v.string(), browser: v.string(), startedAt: v.string(), seenAt: v.string() },
          isThis: v.boolean(),
        }),
      ),
    }),
  ),
  events: v.array(eventSchema),
});
export type You = v.InferOutput<typeof YouSchema>;

/** What happened around signing in to the people of an account, the newest first. */
export const SignInsAnswerSchema = v.strictObject({ lines: v.array(eventSchema) });

/** By a link: address and password, the first time or anew; without a password (null) the company's sign-in. */
export const TakeLinkSchema = v.object({
  ...{ token: v.pipe(v.string(), v.maxLength(100)), email },
  password: v.nullable(password),
});
/** Where the browser goes to sign in by the company. */
export const CompanySchema = v.strictObject({ address: v.string() });
/** A link is shown once to who made it: only its digest is kept. */
export const LinkSchema = v.strictObject({ token: v.string(), endsAt: v.string() });
