import { changeKey, isNewListId, listMadeBy, normalise, type ElementRow } from '@/core';
import type { Db } from '../../../db/connection';
import { closeSet, listUnderway } from '../../../repositories/tray/change-sets';
import {
  loadChangesOf,
  loadUnderway,
  updateChanges,
  type StoredChange,
} from '../../../repositories/tray/changes';
import { renameLists } from '../../../repositories/tray/made-lists';
import { renameListsInRules } from '../../../repositories/lists/hang-rules';
import {
  removeFromMirror,
  renameInMirror,
  type GoneElements,
} from '../../../repositories/structure/structure-file';
import { loadMirror, type Mirror } from '../../../repositories/structure/structure';
import { workOf } from '../kinds';

/**
 * Compares what was said to be done with a structure file that has just been written to the mirror. Each change that
 * the file covers becomes there, missing or different. A file covers a kind of element as soon as it names one element
 * of that kind: an element of the kind that it does not name is gone. Changes of the other kinds stay said to be done.
 * @returns how many changes were compared, and how many of them are as said
 */
export async function compareSaid(
  trx: Db,
  accountId: number,
  elements: readonly ElementRow[],
): Promise<{ compared: number; there: number }> {
  const outcome = { compared: 0, there: 0 };
  const said = (await listUnderway(trx, accountId)).filter((set) => set.state !== 'sending');
  if (said.length === 0) return outcome;
  const speaksOf = new Set(elements.map((row) => row.element));
  for (const { id: setId } of said) {
    await adoptNamedLists(trx, accountId, await loadChangesOf(trx, accountId, setId));
    const changes = await loadChangesOf(trx, accountId, setId);
    const known = changes.filter(({ state, change }) => {
      const element = workOf(change).shownBy(change);
      return state === 'said' && element !== null && speaksOf.has(element);
    });
    await dropWhatIsGone(trx, accountId, elements, known);
    const mirror = await loadMirror(trx, accountId);
    const found = known.map(({ id, change }) => ({ id, state: workOf(change).find(change, mirror) }));
    await updateChanges(trx, accountId, setId, found);
    outcome.compared += found.length;
    outcome.there += found.filter(({ state }) => state === 'there').length;
    const after = await loadChangesOf(trx, accountId, setId);
    if (after.every((c) => c.state !== 'said' && c.state !== 'drafted')) {
      const failed = after.some((c) => c.state !== 'there');
      await closeSet(trx, accountId, setId, failed ? 'partly failed' : 'confirmed');
    }
  }
  return outcome;
}

/**
 * Gives lists that were said to be renamed their new name where the file names that one and not the old: otherwise the
 * file would make a second list. To be called before the file is written to the mirror.
 */
export async function renameAsSaid(
  trx: Db,
  accountId: number,
  elements: readonly ElementRow[],
): Promise<void> {
  const named = new Set(elements.map((row) => ('list' in row ? row.list : '')));
  const said = (await loadUnderway(trx, accountId)).filter((c) => c.state === 'said');
  for (const { change } of said)
    if (change.kind === 'rename list' && named.has(change.name) && !named.has(change.was))
      await renameInMirror(trx, accountId, change);
}

/** A list that was made in the tray is the one that the file names so. */
async function adoptNamedLists(trx: Db, accountId: number, changes: readonly StoredChange[]): Promise<void> {
  const { lists } = await loadMirror(trx, accountId);
  const adopted = new Map(
    changes.flatMap(({ change }) => {
      const made = listMadeBy(change);
      const list = made && isNewListId(made.listId) && lists.find((l) => l.name === made.name);
      return list ? [[made.listId, list.id] as const] : [];
    }),
  );
  await renameLists(trx, accountId, adopted);
  await renameListsInRules(trx, accountId, adopted);
}

/** What was said to be removed and the file does not name is gone. */
async function dropWhatIsGone(
  trx: Db,
  accountId: number,
  elements: readonly ElementRow[],
  changes: readonly StoredChange[],
): Promise<void> {
  const mirror = await loadMirror(trx, accountId);
  const named = new Set(elements.flatMap((row) => keysOf(row, mirror)));
  const gone: GoneElements = { negativeIds: [], listIds: [], hangings: [] };
  for (const { change } of changes)
    if (!named.has(changeKey(change))) workOf(change).dropUnnamed?.(change, gone, mirror);
  await removeFromMirror(trx, accountId, gone);
}

/**
 * The keys of the changes that the rows of a structure file show to be there; rows that are called removed show
 * nothing.
 */
function keysOf(row: ElementRow, { campaigns, adGroups, lists: all }: Mirror): string[] {
  if (row.status === 'removed') return [];
  const lists = all.filter((l) => 'list' in row && l.name === row.list);
  const removals = lists.map(({ id, name }) => changeKey({ kind: 'remove list', listId: id, name }));
  const campaignIds = (name: string) => campaigns.filter((c) => c.name === name).map((c) => c.id);
  if (row.element === 'list') {
    const hangings = lists.flatMap(({ id: listId }) =>
      campaignIds(row.campaign).map((campaignId) =>
        changeKey({ kind: 'take down list', listId, campaignId }),
      ),
    );
    return [...removals, ...hangings];
  }
  if (row.element !== 'negative') return [];
  const { text, match } = row;
  const at = (kind: 'account' | 'campaign' | 'adGroup' | 'list', id: string | null) =>
    changeKey({ kind: 'remove negative', text: normalise(text), match, place: { kind, id } });
  if (row.list !== '') return [...removals, ...lists.map((l) => at('list', l.id))];
  const inCampaigns = campaignIds(row.campaign);
  if (row.adGroup !== '')
    return adGroups
      .filter((g) => g.name === row.adGroup && inCampaigns.includes(g.campaignId))
      .map((g) => at('adGroup', g.id));
  return row.campaign === '' ? [at('account', null)] : inCampaigns.map((id) => at('campaign', id));
}
