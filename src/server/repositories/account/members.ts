import type { Member, MemberRole, Role } from '@/contracts/roles';
import type { Db } from '../../db/connection';

type MemberRow = { person_id: number; name: string; role: MemberRole };

/** Who works in an account or once did, in the order in which Gate Post came to know them. */
export async function listMembers(db: Db, accountId: number): Promise<Member[]> {
  const rows: MemberRow[] = await db('member')
    .join('person', 'person.person_id', 'member.person_id')
    .where({ account_id: accountId })
    .orderBy('person_id')
    .select('person.person_id', 'name', 'role');
  return rows.map((row) => ({ id: row.person_id, name: row.name, role: row.role }));
}

/** Gives a person a role in an account, in the place of the one that he or she has. */
export async function setMember(
  db: Db,
  accountId: number,
  personId: number,
  role: MemberRole,
): Promise<void> {
  await db('member')
    .insert({ account_id: accountId, person_id: personId, role })
    .onConflict(['account_id', 'person_id'])
    .merge(['role']);
}

/** Gives everybody who is known the role of an owner. */
export async function makeAllOwners(db: Db, accountId: number): Promise<void> {
  await db.raw(
    `insert into member (account_id, person_id, role) select :accountId, person_id, 'own' from person on conflict (account_id, person_id) do nothing`,
    { accountId },
  );
}

/**
 * Who acts in an account: the person that was chosen, whatever the role; where nobody that is known was, the first who has
 * a role there.
 * @returns undefined where there is no such account; null where nobody has a role in it
 */
export async function findActing(
  db: Db,
  slug: string,
  chosen: number | null,
): Promise<Member | null | undefined> {
  const { rows } = await db.raw<{ rows: (MemberRow | { person_id: null })[] }>(
    `select acting.*
       from account left join lateral (
         select person.person_id, person.name, coalesce(member.role, 'none') as role
           from person left join member
             on member.account_id = account.account_id and member.person_id = person.person_id
           where person.person_id = cast(:chosen as integer) or member.role <> 'none'
           order by person.person_id is distinct from cast(:chosen as integer), person.person_id
           limit 1) acting on true
       where slug = :slug`,
    { slug, chosen },
  );
  const [row] = rows;
  if (!row || row.person_id === null) return row && null;
  return { id: row.person_id, name: row.name, role: row.role };
}

/** Accounts in which a person has a role other than none, or just this one. */
export async function accountsOf(db: Db, personId: number, role?: Role): Promise<Set<number>> {
  const rows: { account_id: number }[] = await db('member')
    .where({ person_id: personId, ...(role && { role }) })
    .whereNot({ role: 'none' })
    .select('account_id');
  return new Set(rows.map((row) => row.account_id));
}

/** Whether somebody else than a person owns an account. */
export async function ownersBeside(db: Db, accountId: number, personId: number): Promise<boolean> {
  const where = { account_id: accountId, role: 'own' };
  return (await db('member').where(where).whereNot({ person_id: personId }).first('person_id')) !== undefined;
}

/** Who owns an account, whichever: the person that was chosen, else the first who does. */
export async function findOwner(db: Db, chosen: number | null): Promise<number | null> {
  const row: { person_id: number } | undefined = await db('member')
    .where({ role: 'own' })
    .orderByRaw('person_id is distinct from ?::integer, person_id', [chosen])
    .first('person_id');
  return row?.person_id ?? null;
}
