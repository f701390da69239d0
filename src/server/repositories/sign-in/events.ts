import type { Db } from '../../db/connection';

/** What happens around signing in. */
export type SignInEvent =
  | 'signed in'
  | 'tried in vain'
  | 'signed out'
  | 'signed out everywhere'
  | 'set a password'
  | 'was given a link'
  | 'set up a second factor'
  | 'took the second factor away'
  | 'ended a session'
  | 'signs in by the company'
  | 'signed in by the company';

/** What happened, to whom; `who` is the name, or the address that was typed where nobody is known to have it. */
export type StoredEvent = { id: string; what: SignInEvent; who: string | null; at: string };

export async function insertSignInEvent(
  db: Db,
  event: { what: SignInEvent; personId: number | null; email: string | null; at: Date },
): Promise<void> {
  await db('sign_in_event').insert({
    ...{ what: event.what, person_id: event.personId, email: event.email, at: event.at },
  });
}

/** What happened to some people, the newest first. Tries in vain stand with who has the address. */
export async function listSignInEvents(
  db: Db,
  people: readonly number[],
  most: number,
): Promise<StoredEvent[]> {
  const rows: { id: number; what: SignInEvent; name: string | null; at: Date }[] = await db(
    'sign_in_event as event',
  )
    .leftJoin('sign_in as by_address', 'by_address.email', 'event.email')
    .leftJoin('person', (on) =>
      on.on('person.person_id', db.raw('coalesce(event.person_id, by_address.person_id)')),
    )
    .whereIn('person.person_id', people)
    .orderBy('sign_in_event_id', 'desc')
    .limit(most)
    .select({ id: 'sign_in_event_id', what: 'what', name: 'person.name', at: 'event.at' });
  return rows.map(({ id, what, name, at }) => ({ id: String(id), what, who: name, at: at.toISOString() }));
}

/** How many people have an address and a password. */
export async function countWhoSignIn(db: Db): Promise<number> {
  const [row] = await db('sign_in').count({ count: '*' });
  return Number(row!.count);
}
