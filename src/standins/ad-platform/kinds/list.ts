import { refuse, take, type AccountInWork, type ActionsFor, type Applied } from './kind';

export const listActions: ActionsFor<'make list' | 'rename list' | 'remove list'> = {
  async 'make list'({ name, holds }, account) {
    const refusal = refuseName(account, name);
    if (refusal) return refusal;
    const list = { id: account.newId('L'), name, status: 'live' as const, holds };
    account.structure.lists.push(list);
    await account.put('lists', list);
    return { id: list.id };
  },

  async 'rename list'({ listId, name }, account) {
    const list = await findList(account, listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    const refusal = refuseName(account, name);
    if (refusal) return refusal;
    list.name = name;
    await account.put('lists', list);
    return { id: list.id };
  },

  async 'remove list'({ listId }, account) {
    const { lists, hangings, negatives, placements } = account.structure;
    const list = await findList(account, listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    if (hangings.some((h) => h.listId === list.id))
      return refuse('list hangs', `${list.name} still hangs on campaigns. Take it down first.`);
    const isEmpty =
      !negatives.some((n) => n.place.kind === 'list' && n.place.id === list.id) &&
      !placements.some((p) => p.listId === list.id);
    if (!isEmpty) return refuse('list not empty', `${list.name} still holds entries. Remove them first.`);
    take(lists, list);
    await account.put('lists', { ...list, status: 'removed' });
    return { id: list.id };
  },
};

/** The list that a change names; undefined where it is not there, or was not made. */
export async function findList(account: AccountInWork, listId: string) {
  const id = await account.resolve(listId);
  return account.structure.lists.find((list) => list.id === id);
}

function refuseName({ structure }: AccountInWork, name: string): Applied | undefined {
  if (name.trim() === '') return refuse('no name', 'A list needs a name.');
  return structure.lists.some((list) => list.name === name)
    ? refuse('name taken', `There is a list named ${name} already.`)
    : undefined;
}
