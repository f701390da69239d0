import { mayDo, ROLE_NAMES, type Member, type Role } from '@/contracts/roles';
import { listed } from '@/core';
import { listAccounts, listPeople } from '../../repositories/account/accounts';
import { findActing, findOwner, listMembers } from '../../repositories/account/members';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/**
 * Asks whether somebody may do what needs a role. This is the one place that asks: every route passes through it.
 * @param chosen the person's id; in the place of one who is not known acts the first who has a role in the account
 * @returns who acts
 * @throws Refusal when there is no such account, or the role does not suffice
 */
export async function permit(deps: Deps, slug: string, chosen: number | null, needed: Role): Promise<Member> {
  const acting = await findActing(deps.db, slug, chosen);
  if (acting === undefined) throw new Refusal(`There is no account ${slug}.`, 404);
  if (acting === null) throw new Refusal('Nobody has a role in this account. Nothing was changed.', 403);
  if (!mayDo(acting.role, needed)) await refuse(deps, slug, acting, needed);
  return acting;
}

/**
 * Asks the same within a use-case, where what is needed depends on what is stored.
 * @throws Refusal when the person's role does not suffice
 */
export async function permitPerson(deps: Deps, slug: string, personId: number, needed: Role): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  const members = await listMembers(deps.db, id);
  const person = (await listPeople(deps.db)).find((one) => one.id === personId);
  const role = members.find((one) => one.id === personId)?.role ?? 'none';
  if (!mayDo(role, needed))
    await refuse(deps, slug, { id: personId, name: person?.name ?? 'Nobody', role }, needed);
}

async function refuse(deps: Deps, slug: string, me: Member, needed: Role): Promise<never> {
  const { id } = await requireAccount(deps, slug);
  const may = (await listMembers(deps.db, id)).filter(({ role }) => mayDo(role, needed));
  const has =
    me.role === 'none'
      ? `${me.name} has no role in this account`
      : `${me.name} ${ROLE_NAMES[me.role]}, and this asks for more`;
  const who = listed(may.map(({ name }) => name));
  const ask = needed === 'look' ? `Who has one: ${who}.` : `Nothing was changed. It may be done by ${who}.`;
  throw new Refusal(`${has}. ${ask}`, 403);
}

/**
 * Asks whether somebody may add an account: one who owns another, or anybody while there is none.
 * @param chosen the person's id; in the place of one who is not known acts the first who owns an account
 * @returns who adds it; null where nobody is known yet
 * @throws Refusal when the person owns no account
 */
export async function permitAdding(deps: Deps, chosen: number | null): Promise<number | null> {
  const owner = await findOwner(deps.db, chosen);
  if (owner !== null && owner === chosen) return owner;
  const [people, accounts] = await Promise.all([listPeople(deps.db), listAccounts(deps.db)]);
  const me = people.find(({ id }) => id === chosen);
  if (accounts.length === 0) return (me ?? people[0])?.id ?? null;
  if (!me) return owner;
  throw new Refusal(
    `${me.name} owns no account, and only who owns one may add another. Nothing was changed.`,
    403,
  );
}
