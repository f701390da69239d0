import { insertSignInEvent } from '../../repositories/sign-in/events';
import { Refusal, type SignInDeps } from '../deps';

/**
 * Begins to sign somebody in by the company.
 * @returns where the browser goes, and cookies that it brings back
 * @throws Refusal when there is no company, or it does not answer
 */
export async function goToCompany(
  { signIns }: SignInDeps,
  origin: string,
  headers: Headers,
): Promise<{ address: string; cookies: string[] }> {
  if (signIns.companyName === null) throw new Refusal('There is no company by which one could sign in.', 404);
  const way = await signIns.goToCompany(origin, headers);
  if (!way)
    throw new Refusal(`${signIns.companyName} does not answer. Try again, or sign in with a password.`, 502);
  return way;
}

/**
 * Signs in whom the company leads back.
 * @returns cookies of the session; null when the company names nobody whom we know
 */
export async function comeFromCompany(
  deps: SignInDeps,
  origin: string,
  request: Request,
): Promise<string[] | null> {
  const signed = await deps.signIns.comeFromCompany(origin, request);
  if (!signed) return null;
  const { personId, cookies } = signed;
  const at = deps.clock.now();
  await insertSignInEvent(deps.db, { what: 'signed in by the company', personId, email: null, at });
  return cookies;
}
