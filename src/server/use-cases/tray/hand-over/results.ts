import { changeKey, counted, describeChange, readResults, USUAL_RECIPE, type ResultColumns } from '@/core';
import type { ResultsRead } from '@/contracts/sheets';
import type { Db } from '../../../db/connection';
import { closeSet, findSet, moveSet, setState } from '../../../repositories/tray/change-sets';
import {
  deleteDrafted,
  loadChangesOf,
  loadDraft,
  updateChanges,
  type StoredChange,
} from '../../../repositories/tray/changes';
import { listSheetRecipes } from '../../../repositories/tray/sheet-recipes';
import { appendAllToLedger, appendLedger } from '../../../repositories/ledger';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount } from '../../open-workbench';
import { tablesIn, type SmallFile } from '../../small-file';
import { draftAgain } from '../draft-again';
import { tellOf } from '../tell-ledger';
import { onSet } from './on-set';
import { cellsOfChange } from './sheet-of-set';

/** The answer code of a change that a result sheet names as not carried out. */
const BY_SHEET = 'by sheet';

/**
 * Reads a result sheet of a tray that was handed over. Nothing is stored.
 * @throws Refusal when the file can not be read, or has none of the headings of a sheet
 */
export async function readResultSheet(
  deps: Deps,
  slug: string,
  setId: number,
  file: SmallFile,
  chosen: ResultColumns,
): Promise<ResultsRead> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const set = await findSet(deps.db, open.account.id, setId);
  if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
  const waiting = (await loadChangesOf(deps.db, open.account.id, setId)).filter(isWaiting);
  const given = waiting.map((stored) => ({ id: stored.id, cells: cellsOfChange(open, stored) }));
  const recipes = [...(await listSheetRecipes(deps.db, open.account.id)), USUAL_RECIPE];
  const said = new Map(waiting.map(({ id, change }) => [id, describeChange(change, open.names)]));
  const named = (id: number) => ({ id, said: said.get(id)! });
  let fault = '';
  for (const table of tablesIn(file)) {
    const read = readResults(table, given, recipes, chosen);
    if (!('error' in read))
      return {
        ...read,
        results: read.results.map(({ id, failed }) => ({ ...named(id), failed })),
        unnamed: read.unnamed.map(named),
      };
    fault = read.error;
  }
  throw new Refusal(`${fault} Nothing was taken.`);
}

const isWaiting = ({ state }: StoredChange) => state === 'drafted' || state === 'said';

/** A change, and what it was before a result sheet was stored. */
export type WasBefore = { id: number; was: 'drafted' | 'said' };

/**
 * Stores what a result sheet says: what was carried out counts as in force from now on, as said to be done; what failed
 * is in the tray again with the reason. Changes of which nothing is said go on waiting.
 * @returns how many of each, and what each change was before, so that it can be taken back
 * @throws Refusal when one of the changes does not wait any more; nothing is stored then
 */
export async function storeResults(
  deps: Deps,
  slug: string,
  personId: number,
  setId: number,
  results: readonly { id: number; failed: string | null }[],
): Promise<{ done: number; failed: number; waiting: number; was: WasBefore[] }> {
  return onSet(deps, slug, setId, async (trx, open, set) => {
    const accountId = open.account.id;
    if (set.state !== 'handed over' && set.state !== 'said to be done')
      throw new Refusal('This tray waits for no result any more. It is shown here as it stands now.', 409);
    const byId = new Map((await loadChangesOf(trx, accountId, setId)).map((stored) => [stored.id, stored]));
    const outcomes = new Map(results.map(({ id, failed }) => [id, failed]));
    if ([...outcomes.keys()].some((id) => !byId.has(id) || !isWaiting(byId.get(id)!)))
      throw new Refusal('Some of these changes wait for no result any more. Read the sheet again.', 409);
    const updates = [...outcomes].map(([id, failed]) =>
      failed === null
        ? { id, state: 'said' as const }
        : { id, state: 'refused' as const, answerCode: BY_SHEET, answerText: failed },
    );
    await updateChanges(trx, accountId, setId, updates);
    const after = await loadChangesOf(trx, accountId, setId);
    const failed = after.filter(({ id }) => outcomes.get(id) != null);
    await draftAgain(trx, accountId, failed);
    const entries = after.flatMap((stored) =>
      outcomes.has(stored.id)
        ? [{ ...tellOf(stored, open.names), actor: { person: personId }, after: afterOf(stored) }]
        : [],
    );
    await appendAllToLedger(trx, accountId, entries);
    const waiting = after.filter(({ state }) => state === 'drafted').length;
    if (waiting === 0) {
      const isSaid = after.some(({ state }) => state === 'said');
      if (isSaid) await moveSet(trx, accountId, setId, 'handed over', 'said to be done');
      else await closeSet(trx, accountId, setId, 'partly failed');
    }
    const was = [...outcomes.keys()].map((id) => ({ id, was: byId.get(id)!.state as WasBefore['was'] }));
    return { done: outcomes.size - failed.length, failed: failed.length, waiting, was };
  });
}

const afterOf = ({ state, answerText }: StoredChange) =>
  state === 'refused' ? { state, answer: answerText } : { state };

/**
 * Takes back what a result sheet said: each change waits again, or is said to be done, as it was before; what was drafted anew
 * because it failed leaves the draft.
 * @throws Refusal when something else has become of them since; nothing was changed then
 */
export async function takeBackResults(
  deps: Deps,
  slug: string,
  personId: number,
  setId: number,
  results: readonly WasBefore[],
): Promise<void> {
  return onSet(deps, slug, setId, async (trx, { account }) => {
    const byId = new Map((await loadChangesOf(trx, account.id, setId)).map((stored) => [stored.id, stored]));
    const isBySheet = (stored: StoredChange | undefined) =>
      stored?.state === 'said' || (stored?.state === 'refused' && stored.answerCode === BY_SHEET);
    if (!results.every(({ id }) => isBySheet(byId.get(id))))
      throw new Refusal(
        'Something else has become of some of these changes since. Nothing was taken back.',
        409,
      );
    const failed = results.map(({ id }) => byId.get(id)!).filter(({ state }) => state === 'refused');
    await dropDraftedAnew(trx, account.id, failed);
    await updateChanges(
      trx,
      account.id,
      setId,
      results.map(({ id, was }) => ({ id, state: was })),
    );
    const waits = (await loadChangesOf(trx, account.id, setId)).some(({ state }) => state === 'drafted');
    await setState(trx, account.id, setId, waits ? 'handed over' : 'said to be done');
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'change' },
      what: `Taken back: what a result sheet said of ${counted(results.length, 'change')}`,
    });
  });
}

async function dropDraftedAnew(trx: Db, accountId: number, failed: readonly StoredChange[]): Promise<void> {
  const reasons = new Map(failed.map((stored) => [changeKey(stored.change), stored.answerText]));
  const anew = (await loadDraft(trx, accountId)).filter(
    ({ change, failedBefore }) => failedBefore !== null && reasons.get(changeKey(change)) === failedBefore,
  );
  const ids = anew.map(({ id }) => id);
  await deleteDrafted(trx, accountId, ids);
}
