import { isNewListId, keyOfNewList, type Change } from '@/core';
import { knownLists } from '../../lists/known-lists';
import type { Open } from '../../open-workbench';
import { isFound, type WorkFor } from './kind';

type Kind = 'make list' | 'remove list' | 'rename list';

const cellsOfName = ({ name }: { name: string }) => ({ Place: 'list', List: name });

const UUID = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/;

export const listWork: WorkFor<Kind> = {
  'make list': {
    refuse({ listId, name }, open) {
      if (!isNewListId(listId) || !UUID.test(keyOfNewList(listId)))
        return 'A new list needs an id of its own.';
      return refuseName(open, name);
    },
    translate: ({ kind, name, holds = 'words' }) => ({ kind, name, holds }),
    find: ({ listId }, { lists }) => isFound(lists.some(({ id }) => id === listId)),
    sheet: { task: 'Make the shared list', status: 'live', cells: cellsOfName },
    shownBy: () => 'list',
  },
  'remove list': {
    refuse({ listId, name }, { draft: { gate } }) {
      const entries = gate.entriesAt({ kind: 'list', id: listId }).length;
      if (entries + gate.placementsIn(listId).length > 0)
        return `${name} still holds entries. Remove them first.`;
      return gate.hungOn(listId).length > 0
        ? `${name} still hangs on campaigns. Take it down first.`
        : undefined;
    },
    translate: ({ kind }, ids) => ({ kind, listId: ids.list! }),
    find: ({ listId }, { lists }) => isFound(!lists.some(({ id }) => id === listId)),
    sheet: { task: 'Remove the shared list', status: 'removed', cells: cellsOfName },
    shownBy: () => 'list',
    dropUnnamed: ({ listId }, gone) => void gone.listIds.push(listId),
  },
  'rename list': {
    refuse({ name, was }, open, list) {
      if (list!.isNew)
        return 'This list is not made yet: take it out of the tray and make it under its name.';
      if (list!.name !== was)
        return `This list is called ${list!.name} by now. Nothing was changed: look again.`;
      return refuseName(open, name);
    },
    isSoAlready: ({ name, was }) => (name === was ? 'This is its name already.' : undefined),
    refuseToSend: ({ listId, was }, { snapshot }) =>
      snapshot.mirror.lists.find((l) => l.id === listId)?.name === was
        ? undefined
        : 'Nothing was sent. A list in the tray has another name by now. Take the renaming out.',
    translate: ({ kind, name }, ids) => ({ kind, listId: ids.list!, name }),
    find({ listId, name, was }, { lists }) {
      const found = lists.find(({ id }) => id === listId)?.name;
      if (found === name) return 'there';
      return found === was || found === undefined ? 'missing' : 'different';
    },
    sheet: {
      ...{ task: 'Rename the shared list', status: 'live' },
      cells: ({ was, name }) => ({ ...cellsOfName({ name: was }), Text: name }),
    },
    shownBy: () => 'list',
  },
};

function refuseName(open: Open, name: string): string | undefined {
  const isRenaming = (change: Change) => change.kind === 'rename list' && change.name === name;
  const isTaken = knownLists(open).some((list) => list.name === name) || open.laid.some(isRenaming);
  return isTaken ? `There is a list named ${name} already. Choose another name.` : undefined;
}
