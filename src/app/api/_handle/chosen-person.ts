import 'server-only';
import { cookies } from 'next/headers';
import * as v from 'valibot';
import { PERSON_COOKIE, StoredNumberSchema } from '@/contracts/common';

/** The id of the person who was chosen in the top strip; null where none was. */
export async function chosenPerson(): Promise<number | null> {
  const text = (await cookies()).get(PERSON_COOKIE)?.value;
  const parsed = v.safeParse(StoredNumberSchema, Number(text));
  return parsed.success ? parsed.output : null;
}
