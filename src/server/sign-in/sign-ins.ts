import { isAPIError } from 'better-auth/api';
import { COMPANY, createAuth, type Auth } from './auth';

/** Cookies that an answer sets. */
export type Cookies = string[];

export type SignedIn =
  { is: 'signed in'; personId: number; cookies: Cookies } | { is: 'asked for a code'; cookies: Cookies };

/** A browser in which a person has signed in. */
export type OpenSession = { id: string; browser: string; startedAt: Date; seenAt: Date; isThis: boolean };
/** What a person has set up. */
export type OwnSignIn = { email: string; hasFactor: boolean; sessions: OpenSession[] };
/** A second factor: what a program for codes reads, and codes that count once each in its place. */
export type NewFactor = { uri: string; spareCodes: string[] };

/** Who signs in, and with what: the port that the rest of Gate Post knows. */
export type SignIns = {
  /** @returns the person whose session the cookies of a request hold; null where there is none, or it has ended */
  whoIs(headers: Headers): Promise<number | null>;
  /** The address by which a person signs in; null where there is none yet. */
  addressOf(personId: number): Promise<string | null>;
  /** Who signs in by an address. */
  whoHas(email: string): Promise<number | null>;
  /**
   * Lets a person sign in with an e-mail address from now on: by a password, or (null) by the company alone.
   * @throws Error when the address is taken
   */
  add(who: { personId: number; name: string; email: string; password: string | null }): Promise<void>;
  /** Sets another password, without the second factor that stood beside the one before, and ends all sessions of the person. */
  setPassword(personId: number, password: string): Promise<void>;
  /** @returns null when address and password do not belong together */
  signIn(asked: { email: string; password: string }, headers: Headers): Promise<SignedIn | null>;
  /**
   * The second step, where the first one asked for a code.
   * @param code six digits, or one of the codes for the day when the second factor is lost
   * @returns null when the code is not the one
   */
  giveCode(code: string, headers: Headers): Promise<SignedIn | null>;
  /** What a person has set up, and where he or she has signed in. @param headers of the request, with its cookies */
  describe(headers: Headers): Promise<OwnSignIn>;
  /** Sets another password by oneself, and ends the other sessions. @returns null when the current one is another */
  changePassword(asked: { current: string; next: string }, headers: Headers): Promise<Cookies | null>;
  /** Begins a second factor; it counts once a code of it was given (`confirmFactor`). @returns null when it is not the password */
  prepareFactor(password: string, headers: Headers): Promise<NewFactor | null>;
  /** @returns null when the code is not the one */
  confirmFactor(code: string, headers: Headers): Promise<Cookies | null>;
  /** Signing in asks for no code any more. @returns null when it is not the password */
  dropFactor(password: string, headers: Headers): Promise<Cookies | null>;
  /** Ends one of one's own sessions. */
  endSession(id: string, headers: Headers): Promise<void>;
  /** What the company is called by which people may sign in; null where there is none. */
  companyName: string | null;
  /**
   * Begins to sign in by the company.
   * @param origin of Gate Post, as the browser knows it
   * @returns where the browser goes; null when the company does not answer
   */
  goToCompany(origin: string, headers: Headers): Promise<{ address: string; cookies: Cookies } | null>;
  /** Ends it, when the company leads back. @returns null when it knows nobody whom we know */
  comeFromCompany(origin: string, request: Request): Promise<{ personId: number; cookies: Cookies } | null>;
  signOut(headers: Headers): Promise<Cookies>;
  /** Ends all sessions of a person. */
  signOutEverywhere(personId: number): Promise<void>;
};

const SIX_DIGITS = /^\d{6}$/;

export function createSignIns(options: Parameters<typeof createAuth>[0]): SignIns {
  const auth = createAuth(options);
  return {
    async whoIs(headers) {
      const session = await auth.api.getSession({ headers });
      return session?.user.personId ?? null;
    },

    async addressOf(personId) {
      return (await findUser(auth, personId))?.email ?? null;
    },

    async whoHas(email) {
      const { internalAdapter } = await auth.$context;
      const found = await internalAdapter.findUserByEmail(email);
      return found ? (found.user as unknown as User).personId : null;
    },

    async add({ personId, name, email, password }) {
      const { internalAdapter, password: passwords } = await auth.$context;
      const user = await internalAdapter.createUser({ name, email, personId }, { method: 'email-password' });
      if (password === null) return;
      await internalAdapter.linkAccount({
        ...{ userId: user.id, providerId: 'credential', accountId: user.id },
        password: await passwords.hash(password),
      });
    },

    async setPassword(personId, password) {
      const { adapter, internalAdapter, password: passwords } = await auth.$context;
      const user = await userOf(auth, personId);
      await adapter.deleteMany({ model: 'twoFactor', where: [{ field: 'userId', value: user.id }] });
      await internalAdapter.updateUser(user.id, { twoFactorEnabled: false });
      await internalAdapter.updatePassword(user.id, await passwords.hash(password));
      await internalAdapter.deleteUserSessions(user.id);
    },

    async signIn(body, headers) {
      const answer = await unlessRefused(() => auth.api.signInEmail({ body, headers, returnHeaders: true }));
      if (!answer) return null;
      const cookies = answer.headers.getSetCookie();
      if ('twoFactorRedirect' in answer.response) return { is: 'asked for a code', cookies };
      return { is: 'signed in', personId: await personOf(auth, answer.response.user.id), cookies };
    },

    async giveCode(code, headers) {
      const asked = { body: { code }, headers, returnHeaders: true } as const;
      const answer = await unlessRefused(() =>
        SIX_DIGITS.test(code) ? auth.api.verifyTOTP(asked) : auth.api.verifyBackupCode(asked),
      );
      return (
        answer && {
          is: 'signed in',
          personId: await personOf(auth, answer.response.user.id),
          cookies: answer.headers.getSetCookie(),
        }
      );
    },

    async describe(headers) {
      const [own, sessions] = await Promise.all([
        auth.api.getSession({ headers }),
        auth.api.listSessions({ headers }),
      ]);
      const { session, user } = own!;
      return {
        email: user.email,
        hasFactor: user.twoFactorEnabled === true,
        sessions: sessions.map(({ id, userAgent, createdAt, updatedAt }) => ({
          ...{ id, browser: userAgent ?? '', startedAt: createdAt, seenAt: updatedAt },
          isThis: id === session.id,
        })),
      };
    },

    async changePassword({ current, next }, headers) {
      const body = { currentPassword: current, newPassword: next, revokeOtherSessions: true };
      const answer = await unlessRefused(() =>
        auth.api.changePassword({ body, headers, returnHeaders: true }),
      );
      return answer && answer.headers.getSetCookie();
    },

    async prepareFactor(password, headers) {
      const made = await unlessRefused(() => auth.api.enableTwoFactor({ body: { password }, headers }));
      if (!made) return null;
      if (!('totpURI' in made))
        throw new Error('the package must answer with the address of a second factor');
      return { uri: made.totpURI, spareCodes: made.backupCodes };
    },

    async confirmFactor(code, headers) {
      const answer = await unlessRefused(() =>
        auth.api.verifyTOTP({ body: { code }, headers, returnHeaders: true }),
      );
      return answer && answer.headers.getSetCookie();
    },

    async dropFactor(password, headers) {
      const answer = await unlessRefused(() =>
        auth.api.disableTwoFactor({ body: { password }, headers, returnHeaders: true }),
      );
      return answer && answer.headers.getSetCookie();
    },

    async endSession(id, headers) {
      const session = (await auth.api.listSessions({ headers })).find((one) => one.id === id);
      if (session) await auth.api.revokeSession({ body: { token: session.token }, headers });
    },

    companyName: options.company?.name ?? null,

    async goToCompany(origin, headers) {
      const body = JSON.stringify({ provider: COMPANY, callbackURL: '/', errorCallbackURL: '/sign-in' });
      const answer = await auth.handler(
        new Request(`${origin}/api/auth/sign-in/social`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', origin, cookie: headers.get('cookie') ?? '' },
          body,
        }),
      );
      if (!answer.ok) return null;
      const { url } = (await answer.json()) as { url: string };
      return { address: url, cookies: answer.headers.getSetCookie() };
    },

    async comeFromCompany(origin, request) {
      const { search } = new URL(request.url);
      const answer = await auth.handler(
        new Request(`${origin}/api/auth/callback/${COMPANY}${search}`, { headers: request.headers }),
      );
      const cookies = answer.headers.getSetCookie();
      const own = cookies.map((cookie) => cookie.slice(0, cookie.indexOf(';'))).join('; ');
      const session = await auth.api.getSession({ headers: new Headers({ cookie: own }) });
      return session && { personId: session.user.personId, cookies };
    },

    async signOut(headers) {
      const { headers: set } = await auth.api.signOut({ headers, returnHeaders: true });
      return set.getSetCookie();
    },

    async signOutEverywhere(personId) {
      const { internalAdapter } = await auth.$context;
      await internalAdapter.deleteUserSessions((await userOf(auth, personId)).id);
    },
  };
}

/** @returns null where the package says that something typed was wrong */
async function unlessRefused<T>(work: () => Promise<T>): Promise<T | null> {
  try {
    return await work();
  } catch (error) {
    if (isAPIError(error) && Number(error.statusCode) < 500) return null;
    throw error;
  }
}

type User = { id: string; email: string; personId: number };

async function findUser(auth: Auth, personId: number): Promise<User | null> {
  const { adapter } = await auth.$context;
  return adapter.findOne<User>({ model: 'user', where: [{ field: 'personId', value: personId }] });
}

async function userOf(auth: Auth, personId: number): Promise<User> {
  const user = await findUser(auth, personId);
  if (!user) throw new Error(`person ${personId} has no way to sign in`);
  return user;
}

async function personOf(auth: Auth, userId: string): Promise<number> {
  const { internalAdapter } = await auth.$context;
  const user = await internalAdapter.findUserById(userId);
  return (user as unknown as User).personId;
}
