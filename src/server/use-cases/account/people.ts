import { ROLE_NAMES, type MemberRole, type Role } from '@/contracts/roles';
import { insertPeople, listPeople, lockAccount } from '../../repositories/account/accounts';
import { listMembers, setMember } from '../../repositories/account/members';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { worksAlone } from '../sign-in/is-open';

/**
 * Gives somebody a role in the account, who had none yet: a new person, or one who works in another account.
 * @returns the person's id
 * @throws Refusal when somebody of this name is, or was, here already; or while nobody signs in
 */
export async function addMember(
  deps: Deps,
  slug: string,
  personId: number,
  { name, role }: { name: string; role: Role },
): Promise<{ id: number }> {
  const { id: accountId } = await requireAccount(deps, slug);
  if (await worksAlone(deps))
    throw new Refusal(
      'From two people on everybody signs in. Make a link for yourself first, and set your address and password by it. Nothing was changed.',
      409,
    );
  const isNamed = (one: { name: string }) => one.name.toLowerCase() === name.toLowerCase();
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const same = (await listMembers(trx, accountId)).find(isNamed);
    if (same) {
      const remedy =
        same.role === 'none'
          ? 'Give back a role.'
          : 'If this is another, add something that tells them apart.';
      throw new Refusal(`There is a ${same.name} here already. ${remedy} Nothing was changed.`, 409);
    }
    if (!(await listPeople(trx)).some(isNamed)) await insertPeople(trx, [name]);
    const person = (await listPeople(trx)).find(isNamed)!;
    await setMember(trx, accountId, person.id, role);
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: `${person.name} ${ROLE_NAMES[role]}` },
      ...{ before: 'not here', after: ROLE_NAMES[role] },
      undo: { do: 'set role', person: person.id, role: 'none' },
    });
    return { id: person.id };
  });
}

/**
 * Gives a person of the account another role. What he or she decided stays.
 * @throws Refusal when nobody would own the account
 */
export async function setRole(
  deps: Deps,
  slug: string,
  personId: number,
  asked: { person: number; role: MemberRole; undoes?: number },
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const members = await listMembers(trx, accountId);
    const member = members.find(({ id }) => id === asked.person);
    if (!member) throw new Refusal('This person has no role here. Nothing was changed.', 404);
    if (member.role === asked.role) return;
    if (asked.role !== 'own' && members.every(({ id, role }) => id === member.id || role !== 'own'))
      throw new Refusal(
        'Nobody would own the account. Nothing was changed: let somebody else own it first.',
        409,
      );
    await setMember(trx, accountId, member.id, asked.role);
    await appendLedger(trx, accountId, {
      actor: { person: personId },
      about: 'setting',
      what: `${member.name} ${ROLE_NAMES[asked.role]}`,
      ...{ before: ROLE_NAMES[member.role], after: ROLE_NAMES[asked.role] },
      undo: { do: 'set role', person: member.id, role: member.role },
      undoes: asked.undoes,
    });
  });
}
