import { createHash, randomBytes } from 'node:crypto';
import { addDays } from 'date-fns';
import { insertSignInEvent } from '../../repositories/sign-in/events';
import { insertLink, lockLink, useLinksOf } from '../../repositories/sign-in/links';
import { Refusal, type Deps, type SignInDeps } from '../deps';
import { requireOwnsAllOf } from '../account/data-of-people';

/** For how long a link leads somewhere. */
const DAYS = 7;

const digestOf = (token: string) => createHash('sha256').update(token).digest('hex');

/**
 * Makes a link by which a person of the account sets an address and a password, the first time or anew. Who has it is that
 * person from then on, so it is made only by somebody who owns every account in which the person has a role.
 * @returns the token, which is kept nowhere
 * @throws Refusal when there is no such person, or an account of his or hers belongs to others
 */
export async function makeLink(
  deps: Deps,
  slug: string,
  personId: number,
  of: number,
): Promise<{ token: string; endsAt: string }> {
  await requireOwnsAllOf(deps, slug, personId, of);
  return makeLinkOf(deps, of, personId);
}

/** @param madeBy null for whoever runs Gate Post, from its command line */
export async function makeLinkOf(
  deps: Pick<Deps, 'db' | 'clock'>,
  of: number,
  madeBy: number | null,
): Promise<{ token: string; endsAt: string }> {
  const token = randomBytes(32).toString('base64url');
  const at = deps.clock.now();
  const endsAt = addDays(at, DAYS);
  await deps.db.transaction(async (trx) => {
    await useLinksOf(trx, of, at);
    await insertLink(trx, { digest: digestOf(token), personId: of, madeBy, endsAt });
    await insertSignInEvent(trx, { what: 'was given a link', personId: of, email: null, at });
  });
  return { token, endsAt: endsAt.toISOString() };
}

/**
 * Sets address and password by a link, which leads nowhere after that. Sessions that were open end, and a
 * second factor goes: it may be what was lost. Without a password (null)
 * the person signs in by the company.
 * @throws Refusal when the link was used, has ended, or never was; or when somebody else has the address
 */
export async function takeLink(
  deps: SignInDeps,
  { token, email, password }: { token: string; email: string; password: string | null },
): Promise<void> {
  if (password === null && deps.signIns.companyName === null)
    throw new Refusal(
      'There is no company by which one could sign in here. Give a password. Nothing was changed.',
    );
  await deps.db.transaction(async (trx) => {
    const at = deps.clock.now();
    const link = await lockLink(trx, digestOf(token));
    if (!link || link.isUsed || link.endsAt < at)
      throw new Refusal('This link leads nowhere any more. Ask for another one.', 404);
    const { personId, name } = link;
    const holder = await deps.signIns.whoHas(email);
    if (holder !== null && holder !== personId)
      throw new Refusal('Somebody else signs in by this address. Nothing was changed.', 409);
    const had = await deps.signIns.addressOf(personId);
    if (had === null) await deps.signIns.add({ personId, name, email, password });
    else if (had === email && password !== null) await deps.signIns.setPassword(personId, password);
    else if (had !== email)
      throw new Refusal(`This link is for another address than ${email}. Nothing was changed.`, 409);
    await useLinksOf(trx, personId, at);
    const what = password === null ? 'signs in by the company' : 'set a password';
    await insertSignInEvent(trx, { what, personId, email, at });
  });
}
