import { createSignIns, type SignIns } from '@/server/sign-in/sign-ins';
import type { World } from './world';

/** What signs people in, on the database of a world. */
export function signInsOf({ url }: World): SignIns {
  return createSignIns({
    databaseUrl: url,
    secret: 'of the tests alone '.repeat(3),
    isSecure: false,
  });
}
