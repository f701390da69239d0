import 'server-only';
import { headers } from 'next/headers';
import { Refusal } from '@/server/use-cases/deps';
import { isOpen } from '@/server/use-cases/sign-in/is-open';
import { webDeps, webSignIns } from '@/server/web';
import { chosenPerson } from './chosen-person';

/**
 * Who asks: the person who has signed in. Where nobody signs in (`isOpen`), the one who was chosen in the top strip; null
 * where none was.
 * @throws Refusal when somebody has to sign in first
 */
export async function whoAsks(): Promise<number | null> {
  if (await isOpen(webDeps())) return chosenPerson();
  const personId = await webSignIns().whoIs(new Headers(await headers()));
  if (personId === null) throw new Refusal('Sign in first. Nothing was changed.', 401);
  return personId;
}
