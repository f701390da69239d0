import { cleanPlacement, type ChangeOf } from '@/core';
import type { Mirror } from '../../../repositories/structure/structure';
import { isFound, type KindWork, type PlatformIds, type WorkFor } from './kind';
import { cellsOfList } from './sheet-cells';

type Kind = 'add placement' | 'remove placement';
type Placement = ChangeOf<Kind>;

const cells: KindWork<Placement>['sheet']['cells'] = ({ listId, address }, open) => ({
  ...cellsOfList(open, listId),
  Placement: address,
});

export const placementWork: WorkFor<Kind> = {
  'add placement': {
    refuse({ address }, _open, list) {
      if (list!.holds !== 'placements') return `${list!.name} holds words, so no placement can stand in it.`;
      return cleanPlacement(address) === address
        ? undefined
        : `“${address}” is no address of a site, an app or a channel.`;
    },
    isSoAlready: ({ listId, address }, { draft }) =>
      draft.gate.holdsPlacement(listId, address) ? `${address} stands there already.` : undefined,
    translate,
    find: (change, mirror) => isFound(isIn(change, mirror)),
    sheet: { task: 'Add the placement', status: 'live', cells },
    shownBy: () => null,
  },
  'remove placement': {
    isSoAlready: ({ listId, address }, { draft }) =>
      draft.gate.holdsPlacement(listId, address) ? undefined : `${address} does not stand there.`,
    translate,
    find: (change, mirror) => isFound(!isIn(change, mirror)),
    sheet: { task: 'Remove the placement', status: 'removed', cells },
    shownBy: () => null,
  },
};

function translate({ kind, address }: Placement, ids: PlatformIds) {
  return { kind, address, listId: ids.list! };
}

function isIn({ listId, address }: Placement, { lists }: Mirror): boolean {
  return lists.find(({ id }) => id === listId)?.placements.includes(address) ?? false;
}
