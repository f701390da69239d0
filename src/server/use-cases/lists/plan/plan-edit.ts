import type { ListEdit } from '@/contracts/list-edits';
import { Refusal, type Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { requireList } from '../known-lists';
import { changeMatch, move, pasteNegatives, pastePlacements } from './plan-entries';
import { dropNeedless, gather, hangRest, merge, removeList, split } from './plan-lists';
import { putBack, undoVersion } from './plan-versions';
import { removes, type Planned } from './planned';
import { counted } from '@/core';

/** The most changes that the tray shows and sends in reasonable time. */
const MOST_CHANGES = 25_000;

/**
 * The changes that an edit of lists comes to, against the account as the tray leaves it.
 * @throws Refusal when it names what is not there, or comes to nothing
 */
export async function planEdit(deps: Deps, open: Open, edit: ListEdit): Promise<Planned> {
  const planned = await planOf(deps, open, edit);
  const told = (planned.refused?.length ?? 0) + (planned.twice ?? 0) + (planned.already ?? 0);
  if (planned.changes.length === 0 && told === 0)
    throw new Refusal(`${planned.said}: there is nothing to change.`);
  if (planned.changes.length > MOST_CHANGES)
    throw new Refusal(
      `${planned.said}: these are ${counted(planned.changes.length, 'change')}, and ${counted(MOST_CHANGES, 'change')} can be made at once. Take a part of it. Nothing was changed.`,
    );
  return planned;
}

function planOf(deps: Deps, open: Open, edit: ListEdit): Planned | Promise<Planned> {
  switch (edit.do) {
    case 'paste':
      return edit.holds === 'placements' ? pastePlacements(open, edit) : pasteNegatives(open, edit);
    case 'move':
      return move(open, edit);
    case 'match':
      return changeMatch(open, edit);
    case 'remove': {
      const { name } = requireList(open, edit.list);
      return {
        said: `Let ${counted(edit.entries.length, 'entry', 'entries')} of ${name} through again`,
        ...{ changes: removes(edit.list, edit.entries), why: null },
      };
    }
    case 'remove placements': {
      const { name, id: listId } = requireList(open, edit.list);
      return {
        said: `Take ${counted(edit.addresses.length, 'placement')} out of ${name}`,
        changes: edit.addresses.map((address) => ({ kind: 'remove placement', address, listId })),
        why: null,
      };
    }
    case 'split':
      return split(open, edit);
    case 'merge':
      return merge(open, edit);
    case 'drop needless':
      return dropNeedless(open, edit);
    case 'remove list':
      return removeList(open, edit);
    case 'rest':
      return hangRest(open, edit);
    case 'gather':
      return gather(edit);
    case 'put back':
      return putBack(deps, open, edit);
    case 'undo version':
      return undoVersion(deps, open, edit);
  }
}
