import { applyDifference, changesFor, differenceOf, invertDifference, type ListState } from '@/core';
import { findListVersion, listVersionsOf } from '../../../repositories/lists/list-versions';
import { Refusal, type Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { requireList } from '../known-lists';
import { made, stateOf, type EditOf, type Planned } from './planned';

/** The list as it was after a version, as differences taken back one by one. */
export async function putBack(
  { db }: Deps,
  open: Open,
  { list, version }: EditOf<'put back'>,
): Promise<Planned> {
  const { name } = requireList(open, list);
  const versions = await listVersionsOf(db, open.account.id, list);
  const at = versions.findIndex(({ id }) => id === version);
  if (at < 0) throw new Refusal('This list has no such version.', 404);
  const now = mirroredState(open, list);
  const then = versions
    .slice(0, at)
    .reduce((state, { difference }) => applyDifference(state, invertDifference(difference)), now);
  return {
    said: `Put ${name} back as it was on ${versions[at]!.at.slice(0, 10)}`,
    changes: changesFor(differenceOf(stateOf(open, list), then), list),
    why: `put back as it was on ${versions[at]!.at.slice(0, 10)}`,
  };
}

/** A list as the platform has it. */
function mirroredState({ snapshot }: Open, listId: string): ListState {
  const { mirror } = snapshot;
  const list = mirror.lists.find((l) => l.id === listId);
  if (!list) throw new Refusal('This list is not there any more.', 404);
  return {
    name: list.name,
    entries: mirror.negatives.filter(({ place }) => place.kind === 'list' && place.id === listId),
    placements: list.placements,
    hungOn: list.hungOn === 'account' ? [null] : list.hungOn,
  };
}

/** Takes back what somebody else did to a list; one that was removed is made again. */
export async function undoVersion({ db }: Deps, open: Open, edit: EditOf<'undo version'>): Promise<Planned> {
  const version = await findListVersion(db, open.account.id, edit.version);
  if (version?.state !== 'waits') throw new Refusal('This is settled already.', 409);
  const { listId, listName, holds, what } = version;
  const back = invertDifference(version.difference);
  const settled = { why: `took back what somebody else changed in ${listName}`, undoesVersion: version.id };
  if (what === 'removed') {
    const again = made(listName, holds);
    return {
      said: `Make ${listName} again`,
      changes: [...again.makes, ...changesFor({ ...back, name: null }, again.id)],
      ...settled,
    };
  }
  const { name } = requireList(open, listId);
  return {
    said:
      what === 'made'
        ? `Remove ${name}, which somebody else made`
        : `Take back what somebody else changed in ${name}`,
    changes: [
      ...changesFor(back, listId),
      ...(what === 'made' ? [{ kind: 'remove list' as const, listId, name, holds }] : []),
    ],
    ...settled,
  };
}
