import type { Db } from '../../db/connection';
import type { KnotKind, LeftKind } from '@/contracts/knots';

/** A knot that somebody left as it was. */
export type LeftKnot = {
  key: string;
  /** how it was then */
  state: string;
  why: string;
  /** the day up to which it is left, YYYY-MM-DD; null: until it is otherwise */
  until: string | null;
  by: string;
  at: string;
};

export async function listLeftKnots(db: Db, accountId: number, kind: LeftKind): Promise<LeftKnot[]> {
  const rows = await db('left_knot')
    .join('person', 'person.person_id', 'left_knot.person_id')
    .where({ account_id: accountId, kind })
    .select('key', 'state', 'why', 'until', 'person.name as by', 'at');
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** Leaves a knot; one that is left already is left for the new reason. */
export async function insertLeftKnot(
  db: Db,
  accountId: number,
  {
    personId,
    ...knot
  }: { kind: LeftKind; key: string; state: string; why: string; until: string | null; personId: number },
): Promise<void> {
  await db('left_knot')
    .insert({ account_id: accountId, person_id: personId, ...knot })
    .onConflict(['account_id', 'kind', 'key'])
    .merge();
}

/** @returns how it had been left; undefined where it was not */
export async function deleteLeftKnot(
  db: Db,
  accountId: number,
  { kind, key }: { kind: LeftKind; key: string },
): Promise<{ why: string; until: string | null; state: string } | undefined> {
  const [was] = await db('left_knot')
    .where({ account_id: accountId, kind, key })
    .delete()
    .returning(['why', 'until', 'state']);
  return was;
}

type Named = { kind: KnotKind; key: string };

/**
 * Notes which knots there are.
 * @param isWhole whether those that are not among them are gone
 */
export async function noteKnownKnots(
  db: Db,
  accountId: number,
  knots: readonly Named[],
  isWhole: boolean,
): Promise<void> {
  await db.raw(
    `with now as (
       select distinct * from unnest(cast(:kinds as text[]), cast(:keys as text[])) as k(kind, key)
     ), next as (
       select 1 + greatest((select max(noted) from known_knot where account_id = :account),
                           (select max(seen) from knot_look where account_id = :account), 0) as noted
     ), gone as (
       delete from known_knot k
        where account_id = :account and :isWhole
          and not exists (select from now where (now.kind, now.key) = (k.kind, k.key))
     )
     insert into known_knot (account_id, kind, key, noted)
     select :account, kind, key, noted from now, next
     on conflict do nothing`,
    {
      ...{ account: accountId, isWhole },
      ...{ kinds: knots.map(({ kind }) => kind), keys: knots.map(({ key }) => key) },
    },
  );
}

/** Notes that a person looks at the knots. @returns those that came since the look before; none at the first one */
export async function lookAtKnots(db: Db, accountId: number, personId: number): Promise<Named[]> {
  const { rows } = await db.raw<{ rows: { before: number | null }[] }>(
    `insert into knot_look as l (account_id, person_id, seen)
     select :account, :person, coalesce(max(noted), 0) from known_knot where account_id = :account
     on conflict (account_id, person_id) do update
        set before = case when l.seen < excluded.seen then l.seen else l.before end,
            seen = greatest(l.seen, excluded.seen)
     returning before`,
    { account: accountId, person: personId },
  );
  const { before } = rows[0]!;
  if (before === null) return [];
  return db('known_knot')
    .where({ account_id: accountId })
    .where('noted', '>', before)
    .orderBy(['kind', 'key'])
    .select('kind', 'key');
}

/** Of one day: how many knots of a kind there are, and what they cost. */
export type KnotSums = { count: number; costMicros: number; conversions: number };

/** Notes how it stands on a day. @param isSure what was noted of the day before gives way */
export async function noteKnotDay(
  db: Db,
  accountId: number,
  day: string,
  sums: Readonly<Record<KnotKind, KnotSums>>,
  isSure: boolean,
): Promise<void> {
  const written = db('knot_day')
    .insert(
      Object.entries(sums).map(([kind, { count, costMicros, conversions }]) => ({
        ...{ account_id: accountId, day, kind, count },
        ...{ cost_micros: Math.round(costMicros), conversions },
      })),
    )
    .onConflict(['account_id', 'day', 'kind']);
  await (isSure ? written.merge() : written.ignore());
}

/** How it stood on each day on which it was noted, oldest first. */
export async function listKnotDays(
  db: Db,
  accountId: number,
): Promise<({ day: string; kind: KnotKind } & KnotSums)[]> {
  const rows = await db('knot_day').where({ account_id: accountId }).orderBy(['day', 'kind']);
  return rows.map((row) => ({
    ...{ day: row.day, kind: row.kind, count: row.count },
    ...{ costMicros: row.cost_micros, conversions: row.conversions },
  }));
}
