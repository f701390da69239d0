import type { Server } from 'node:http';
import Provider from 'oidc-provider';

/** Somebody whom the stand-in company knows; whatever password is given signs in. */
export type Colleague = { email: string; name: string; isVerified?: boolean };

export const COMPANY_CLIENT = { id: 'gate-post', secret: 'of the stand-in alone' };

/**
 * A stand-in for the OpenID Connect provider of a company, by the package `oidc-provider`: its own pages ask for the address of a
 * colleague, and for any password.
 * @param port on which it listens, on loopback
 * @param callback where it leads back to
 */
export function startCompany(port: number, callback: string, colleagues: readonly Colleague[]): Server {
  const provider = new Provider(`http://127.0.0.1:${port}`, {
    clients: [
      {
        client_id: COMPANY_CLIENT.id,
        client_secret: COMPANY_CLIENT.secret,
        redirect_uris: [callback],
        grant_types: ['authorization_code'],
        response_types: ['code'],
      },
    ],
    claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name'] },
    conformIdTokenClaims: false,
    pkce: { required: () => true },
    cookies: { keys: ['of the stand-in alone'] },
    features: { devInteractions: { enabled: true } },
    findAccount: (_, sub) => {
      const one = colleagues.find(({ email }) => email === sub);
      if (!one) return undefined;
      const { email, name, isVerified = true } = one;
      return { accountId: sub, claims: () => ({ sub, email, email_verified: isVerified, name }) };
    },
  });
  return provider.listen(port, '127.0.0.1');
}
