import { addSeconds, differenceInSeconds } from 'date-fns';
import { findFailures, forgetFailures, lockAddress, setFailures } from '../../repositories/sign-in/failures';
import { insertSignInEvent } from '../../repositories/sign-in/events';
import type { SignedIn } from '../../sign-in/sign-ins';
import { Refusal, type SignInDeps } from '../deps';
import { waitAfter } from './wait';

const WRONG = 'This address and this password do not belong together.';

/**
 * Signs somebody in by address and password. Tries in vain are counted by address, whether or not somebody has it, so
 * that an answer tells nothing of who is here.
 * @param headers of the request
 * @throws Refusal when the two do not belong together, or after too many tries
 */
export async function signIn(
  deps: SignInDeps,
  asked: { email: string; password: string },
  headers: Headers,
): Promise<SignedIn> {
  const { email } = asked;
  const outcome = await deps.db.transaction(async (trx) => {
    await lockAddress(trx, email);
    const now = deps.clock.now();
    const before = await findFailures(trx, email);
    if (before.lockedUntil && before.lockedUntil > now)
      return { waits: differenceInSeconds(before.lockedUntil, now, { roundingMethod: 'ceil' }) };
    const signed = await deps.signIns.signIn(asked, headers);
    if (!signed) {
      const tries = before.tries + 1;
      const wait = waitAfter(tries);
      await setFailures(trx, email, now, { tries, lockedUntil: wait > 0 ? addSeconds(now, wait) : null });
      await insertSignInEvent(trx, { what: 'tried in vain', personId: null, email, at: now });
      return null;
    }
    await forgetFailures(trx, email);
    if (signed.is === 'signed in')
      await insertSignInEvent(trx, { what: 'signed in', personId: signed.personId, email, at: now });
    return signed;
  });
  if (outcome === null) throw new Refusal(WRONG, 401);
  if ('waits' in outcome)
    throw new Refusal(
      `Too many tries in vain with this address. Try again in ${outcome.waits} seconds.`,
      429,
    );
  return outcome;
}

/**
 * Signs somebody in by the code of the second factor, after address and password.
 * @throws Refusal when it is not the code
 */
export async function giveCode(deps: SignInDeps, code: string, headers: Headers): Promise<SignedIn> {
  const signed = await deps.signIns.giveCode(code, headers);
  if (signed?.is !== 'signed in')
    throw new Refusal('This is not the code that counts now. Wait for the next one, or sign in again.', 401);
  const at = deps.clock.now();
  await insertSignInEvent(deps.db, { what: 'signed in', personId: signed.personId, email: null, at });
  return signed;
}

/** Ends a session. @returns cookies that forget it */
export async function signOut(deps: SignInDeps, headers: Headers): Promise<string[]> {
  const personId = await deps.signIns.whoIs(headers);
  const cookies = await deps.signIns.signOut(headers);
  if (personId !== null)
    await insertSignInEvent(deps.db, { what: 'signed out', personId, email: null, at: deps.clock.now() });
  return cookies;
}

/** Ends all sessions of a person, on whatever machine. */
export async function signOutEverywhere(deps: SignInDeps, personId: number): Promise<void> {
  await deps.signIns.signOutEverywhere(personId);
  const at = deps.clock.now();
  await insertSignInEvent(deps.db, { what: 'signed out everywhere', personId, email: null, at });
}
