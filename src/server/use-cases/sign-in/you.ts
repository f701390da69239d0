import type { You } from '@/contracts/sign-in';
import { listPeople } from '../../repositories/account/accounts';
import { listMembers } from '../../repositories/account/members';
import {
  insertSignInEvent,
  listSignInEvents,
  type SignInEvent,
  type StoredEvent,
} from '../../repositories/sign-in/events';
import type { Cookies, NewFactor } from '../../sign-in/sign-ins';
import { Refusal, type Deps, type SignInDeps } from '../deps';
import { requireAccount } from '../open-workbench';
import { isOpen } from './is-open';

const MOST_SHOWN = 200;
const WRONG_PASSWORD = 'This is not your password. Nothing was changed.';

/** What oneself has set up to sign in, where, and what happened around it. */
export async function viewYou(deps: SignInDeps, personId: number | null, headers: Headers): Promise<You> {
  const person = (await listPeople(deps.db)).find(({ id }) => id === personId);
  if (!person || (await isOpen(deps))) return { name: person?.name ?? '', signsIn: null, events: [] };
  const [own, events] = await Promise.all([
    deps.signIns.describe(headers),
    listSignInEvents(deps.db, [person.id], MOST_SHOWN),
  ]);
  const sessions = own.sessions
    .sort((a, b) => b.seenAt.getTime() - a.seenAt.getTime())
    .map(({ startedAt, seenAt, ...rest }) => ({
      ...rest,
      ...{ startedAt: startedAt.toISOString(), seenAt: seenAt.toISOString() },
    }));
  return { name: person.name, signsIn: { ...own, sessions }, events };
}

/** What happened around signing in to the people of an account, the newest first. */
export async function viewSignIns(deps: Deps, slug: string): Promise<{ lines: StoredEvent[] }> {
  const { id } = await requireAccount(deps, slug);
  const people = (await listMembers(deps.db, id)).map((one) => one.id);
  return { lines: await listSignInEvents(deps.db, people, MOST_SHOWN) };
}

/**
 * Sets another password by oneself; other sessions end.
 * @returns cookies of the session that goes on
 * @throws Refusal when the current password is another
 */
export async function changePassword(
  deps: SignInDeps,
  personId: number | null,
  asked: { current: string; next: string },
  headers: Headers,
): Promise<Cookies> {
  return noted(deps, personId, 'set a password', WRONG_PASSWORD, () =>
    deps.signIns.changePassword(asked, headers),
  );
}

/**
 * Begins a second factor: what a program for codes reads, and spare codes.
 * @throws Refusal when it is not the password
 */
export async function prepareFactor(
  deps: SignInDeps,
  personId: number | null,
  password: string,
  headers: Headers,
): Promise<NewFactor> {
  await requireOneself(deps, personId);
  const made = await deps.signIns.prepareFactor(password, headers);
  if (!made) throw new Refusal(WRONG_PASSWORD, 403);
  return made;
}

/**
 * From now on signing in asks for a code too.
 * @throws Refusal when the code is not the one that the second factor shows
 */
export async function confirmFactor(
  deps: SignInDeps,
  personId: number | null,
  code: string,
  headers: Headers,
): Promise<Cookies> {
  const wrong = 'This is not the code that counts now. Wait for the next one. Nothing was changed.';
  return noted(deps, personId, 'set up a second factor', wrong, () =>
    deps.signIns.confirmFactor(code, headers),
  );
}

/** @throws Refusal when it is not the password */
export async function dropFactor(
  deps: SignInDeps,
  personId: number | null,
  password: string,
  headers: Headers,
): Promise<Cookies> {
  return noted(deps, personId, 'took the second factor away', WRONG_PASSWORD, () =>
    deps.signIns.dropFactor(password, headers),
  );
}

/** Ends one of one's own sessions, in whatever browser. */
export async function endSession(
  deps: SignInDeps,
  personId: number | null,
  id: string,
  headers: Headers,
): Promise<void> {
  await noted(deps, personId, 'ended a session', '', async () => {
    await deps.signIns.endSession(id, headers);
    return [];
  });
}

/** Does what oneself asked for, and notes it. @throws Refusal with a reason when the work comes to null */
async function noted(
  deps: SignInDeps,
  personId: number | null,
  what: SignInEvent,
  refused: string,
  work: () => Promise<Cookies | null>,
): Promise<Cookies> {
  const oneself = await requireOneself(deps, personId);
  const cookies = await work();
  if (!cookies) throw new Refusal(refused, 403);
  await insertSignInEvent(deps.db, { what, personId: oneself, email: null, at: deps.clock.now() });
  return cookies;
}

async function requireOneself(deps: SignInDeps, personId: number | null): Promise<number> {
  if (personId === null || (await isOpen(deps)))
    throw new Refusal('Nobody signs in here, so there is nothing to set. Nothing was changed.', 409);
  return personId;
}
