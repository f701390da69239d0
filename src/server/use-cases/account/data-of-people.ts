import { formatISO } from 'date-fns';
import { listPeople } from '../../repositories/account/accounts';
import { accountsOf, listMembers, ownersBeside } from '../../repositories/account/members';
import { appendLedger } from '../../repositories/ledger';
import { loadPersonData, removePerson } from '../../repositories/account/person-data';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

type JsonFile = { name: string; type: string; content: string };

/** Everything that is stored of a person, as a file that the person can take along. */
export async function savePersonData(deps: Deps, of: number): Promise<JsonFile> {
  const person = (await listPeople(deps.db)).find(({ id }) => id === of);
  if (!person) throw new Refusal('There is nobody of this number.', 404);
  const data = await loadPersonData(deps.db, of);
  const day = formatISO(deps.clock.now(), { representation: 'date' });
  return {
    name: `${person.name} in Gate Post, ${day}.json`,
    type: 'application/json; charset=utf-8',
    content: JSON.stringify(data, null, 2),
  };
}

/**
 * The same, asked for by an owner.
 * @throws Refusal unless he or she owns every account of the person
 */
export async function saveMemberData(
  deps: Deps,
  slug: string,
  personId: number,
  of: number,
): Promise<JsonFile> {
  await requireOwnsAllOf(deps, slug, personId, of);
  return savePersonData(deps, of);
}

/**
 * Removes a person for good: the number stands in the place of the name wherever it stood, and nothing else of the person is
 * left. What he or she decided stays. This is the one thing that can not be undone.
 * @param typed the name, typed again
 * @throws Refusal when it is another name, the asker does not own every account of the person, or nobody would own one
 */
export async function forgetPerson(
  deps: Deps,
  slug: string,
  personId: number,
  { of, name: typed }: { of: number; name: string },
): Promise<void> {
  const { name } = await requireOwnsAllOf(deps, slug, personId, of);
  if (typed.trim().toLowerCase() !== name.toLowerCase())
    throw new Refusal(`Type the name as it stands here: ${name}. Nothing was changed.`);
  await deps.db.transaction(async (trx) => {
    const accounts = await accountsOf(trx, of, 'own');
    for (const account of accounts)
      if (!(await ownersBeside(trx, account, of)))
        throw new Refusal(
          'Nobody would own the account. Nothing was changed: let somebody else own it first.',
          409,
        );
    const { id: accountId } = await requireAccount(deps, slug);
    const as = `Person ${of}`;
    await removePerson(trx, { id: of, name, as, at: deps.clock.now() });
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: `Remove ${as}` },
      why: 'The number stands in the place of the name from now on',
    });
  });
}

/**
 * What concerns a person as a whole is done only by somebody who owns every account in which the person has a role.
 * @throws Refusal naming what to do
 */
export async function requireOwnsAllOf(
  deps: Deps,
  slug: string,
  personId: number,
  of: number,
): Promise<{ name: string }> {
  const { id } = await requireAccount(deps, slug);
  const member = (await listMembers(deps.db, id)).find((one) => one.id === of);
  if (!member) throw new Refusal('This person has no role here. Nothing was changed.', 404);
  const [mine, theirs] = [await accountsOf(deps.db, personId, 'own'), await accountsOf(deps.db, of)];
  if (of !== personId && [...theirs].some((account) => !mine.has(account)))
    throw new Refusal(
      `${member.name} has a role in an account that is not yours, so you can not do this. Nothing was changed. Whoever runs Gate Post can make a link: ./gatepost link "${member.name}".`,
      403,
    );
  return member;
}
