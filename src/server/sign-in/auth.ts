import { hash, verify } from '@node-rs/argon2';
import { betterAuth } from 'better-auth';
import { genericOAuth, twoFactor } from 'better-auth/plugins';
import pg from 'pg';
import { webLog } from '../log';
import { LEAST_PASSWORD } from '@/contracts/sign-in';

const DAY_S = 24 * 60 * 60;

/** The OpenID Connect provider of a company. */
export type Company = {
  /** what it is called on the page to sign in */
  name: string;
  /** its address; `/.well-known/openid-configuration` is found under it */
  issuer: string;
  clientId: string;
  clientSecret: string;
};
/** The name of the provider in addresses and in `sign_in_account`. */
export const COMPANY = 'company';

type Options = {
  databaseUrl: string;
  /** signs cookies; at least 32 characters that nobody can guess */
  secret: string;
  /** whether people reach us by TLS, so that cookies are never sent without it */
  isSecure: boolean;
  /** where people may sign in by their company */
  company?: Company | undefined;
};

const TIMES = { createdAt: 'created_at', updatedAt: 'updated_at' };

/**
 * Who signs in, and with what, by the package `better-auth` on the project's own tables. Nobody signs up by oneself:
 * the first person and those who were invited are added by use-cases.
 */
export function createAuth({ databaseUrl, secret, isSecure, company }: Options) {
  return betterAuth({
    appName: 'Gate Post',
    basePath: '/api/auth',
    secret,
    database: new pg.Pool({ connectionString: databaseUrl, max: 4 }),
    // What is let in was asked before (`let-in.ts`): the origin of a write is our own.
    trustedOrigins: (request) => (request ? [new URL(request.url).origin] : []),
    user: {
      modelName: 'sign_in',
      fields: { ...TIMES, emailVerified: 'email_verified' },
      additionalFields: {
        personId: { type: 'number', fieldName: 'person_id', required: true, input: false },
      },
    },
    session: {
      modelName: 'sign_in_session',
      fields: {
        ...TIMES,
        userId: 'user_id',
        expiresAt: 'expires_at',
        ipAddress: 'ip_address',
        userAgent: 'user_agent',
      },
      expiresIn: 14 * DAY_S,
      updateAge: DAY_S,
    },
    account: {
      modelName: 'sign_in_account',
      // Addresses come by invitation, and a company is believed only where it has verified the address itself.
      accountLinking: { enabled: true, requireLocalEmailVerified: false },
      fields: {
        ...TIMES,
        userId: 'user_id',
        accountId: 'account_id',
        providerId: 'provider_id',
        accessToken: 'access_token',
        refreshToken: 'refresh_token',
        idToken: 'id_token',
        accessTokenExpiresAt: 'access_token_expires_at',
        refreshTokenExpiresAt: 'refresh_token_expires_at',
      },
    },
    verification: {
      modelName: 'sign_in_verification',
      fields: { ...TIMES, expiresAt: 'expires_at' },
    },
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: LEAST_PASSWORD,
      revokeSessionsOnPasswordReset: true,
      password: {
        hash: (password) => hash(password),
        verify: ({ hash: stored, password }) => verify(stored, password),
      },
    },
    plugins: [
      genericOAuth({ config: company ? [providerOf(company)] : [] }),
      twoFactor({
        issuer: 'Gate Post',
        schema: {
          user: { fields: { twoFactorEnabled: 'two_factor_enabled' } },
          twoFactor: {
            modelName: 'sign_in_factor',
            fields: {
              userId: 'user_id',
              backupCodes: 'backup_codes',
              failedVerificationCount: 'failed_verification_count',
              lockedUntil: 'locked_until',
            },
          },
        },
      }),
    ],
    rateLimit: { enabled: false }, // tries in vain are counted by address, in the database (`use-cases/sign-in/failures`)
    advanced: {
      database: { generateId: 'serial' },
      cookiePrefix: 'gatepost',
      useSecureCookies: isSecure,
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax', path: '/' },
    },
    // Its details may hold what nobody is to read: only what happened is told.
    logger: { level: 'error', log: (_, message) => webLog.warn(`sign-in: ${message}`) },
    telemetry: { enabled: false },
  });
}
function providerOf({ name, issuer, clientId, clientSecret }: Company) {
  return {
    ...{ providerId: COMPANY, name, clientId, clientSecret },
    discoveryUrl: `${issuer.replace(/\/$/, '')}/.well-known/openid-configuration`,
    requireIdTokenVerification: true,
    scopes: ['openid', 'email', 'profile'],
    pkce: true,
    disableSignUp: true,
  };
}

export type Auth = ReturnType<typeof createAuth>;
