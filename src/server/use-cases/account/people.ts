import { insertPeople, listPeople, lockAccount, setPersonRetired } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/**
 * Adds a person, who can be chosen from now on and stands beside what he or she decides.
 * @returns the person's id
 * @throws Refusal when somebody of this name is here already
 */
export async function addPerson(
  deps: Deps,
  slug: string,
  personId: number,
  name: string,
): Promise<{ id: number }> {
  const { id: accountId } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const same = (await listPeople(trx)).find((p) => p.name.toLowerCase() === name.toLowerCase());
    if (same) {
      const remedy = same.isRetired ? 'Take the retired one back.' : 'Add something that tells them apart.';
      throw new Refusal(`There is a ${same.name} here already. ${remedy}`, 409);
    }
    await insertPeople(trx, [name]);
    const id = (await listPeople(trx)).find((p) => p.name === name)!.id;
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'setting', what: `Add ${name} to the people` },
      undo: { do: 'retire person', person: id, isRetired: true },
    });
    return { id };
  });
}

/**
 * Retires a person, who can not be chosen any more, or takes one back. What he or she decided stays.
 * @throws Refusal when nobody would be left
 */
export async function retirePerson(
  deps: Deps,
  slug: string,
  personId: number,
  asked: { person: number; isRetired: boolean; undoes?: number },
): Promise<void> {
  const { id: accountId } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const people = await listPeople(trx);
    const person = people.find((p) => p.id === asked.person);
    if (!person) throw new Refusal('This person is not there any more.', 404);
    if (person.isRetired === asked.isRetired) return;
    if (asked.isRetired && people.every((p) => p.isRetired || p.id === person.id))
      throw new Refusal('Nobody would be left who can decide. Nothing was changed: add somebody first.', 409);
    await setPersonRetired(trx, person.id, asked.isRetired);
    await appendLedger(trx, accountId, {
      actor: { person: personId },
      about: 'setting',
      what: asked.isRetired ? `Retire ${person.name}` : `Take ${person.name} back among the people`,
      undo: { do: 'retire person', person: person.id, isRetired: !asked.isRetired },
      undoes: asked.undoes,
    });
  });
}
