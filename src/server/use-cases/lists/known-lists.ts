import { listMadeBy, type ListContent } from '@/core';
import { Refusal } from '../deps';
import type { Open } from '../open-workbench';
import { derivedFrom } from '../../compute/derived';

export type KnownList = {
  id: string;
  name: string;
  holds: ListContent;
  /** made in the tray, or on its way: the platform does not have it yet */
  isNew: boolean;
};

const listsById = derivedFrom((open: Open): ReadonlyMap<string, KnownList> => {
  const there = open.snapshot.mirror.lists.map(({ id, name, holds }) => ({ id, name, holds, isNew: false }));
  const made = open.laid.flatMap((change) => {
    const list = listMadeBy(change);
    return list ? [{ id: list.listId, name: list.name, holds: list.holds, isNew: true }] : [];
  });
  return new Map([...there, ...made].map((list) => [list.id, list]));
});

/** All shared lists, those in the tray too, by name. */
export function knownLists(open: Open): KnownList[] {
  return [...listsById(open).values()].sort((a, b) => a.name.localeCompare(b.name, 'en'));
}

export function findList(open: Open, id: string): KnownList | undefined {
  return listsById(open).get(id);
}

/** @throws Refusal when there is no such list */
export function requireList(open: Open, id: string): KnownList {
  const list = findList(open, id);
  if (!list) throw new Refusal('This list is not there any more.', 404);
  return list;
}
