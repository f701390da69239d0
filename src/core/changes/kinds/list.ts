import type { RulesFor } from './kind';

type Kind = 'make list' | 'remove list' | 'rename list';

/** A shared list itself. A platform removes only a list that is empty and hangs nowhere, so no row feels it. */
export const listRules: RulesFor<Kind> = {
  'make list': {
    does: 'neither',
    key: ({ listId }) => `list|${listId}`,
    inverse: (change) => ({ ...change, kind: 'remove list' }),
    say: ({ name, holds }) => `Make the ${holds === 'placements' ? 'placement list' : 'list'} ${name}`,
    list: ({ listId }) => listId,
    makes: ({ listId, name, holds = 'words' }) => ({ listId, name, holds }),
    apply: ({ listId }, gate) => gate.makeList(listId),
    restore: ({ listId }, gate, account) =>
      account.hasList(listId) ? gate.makeList(listId) : gate.dropList(listId),
  },
  'remove list': {
    does: 'neither',
    key: ({ listId }) => `list|${listId}`,
    inverse: (change) => ({ ...change, kind: 'make list' }),
    say: ({ name }) => `Remove the list ${name}`,
    list: ({ listId }) => listId,
    alters: ({ listId }) => listId,
  },
  'rename list': {
    does: 'neither',
    key: ({ listId }) => `name|${listId}`,
    inverse: (change) => ({ ...change, name: change.was, was: change.name }),
    value: ({ name }) => name,
    say: ({ was, name }) => `Rename the list ${was} to ${name}`,
    list: ({ listId }) => listId,
    alters: ({ listId }) => listId,
  },
};
