import Papa from 'papaparse';
import { changeKey, describeChange, readResults, USUAL_RECIPE, type ResultColumns } from '@/core';
import type { ResultsRead } from '@/contracts/sheets';
import type { Db } from '../../../db/connection';
import { closeSet, findSet, moveSet } from '../../../repositories/tray/change-sets';
import {
  deleteDrafted,
  loadChangesOf,
  loadDraft,
  updateChanges,
  type StoredChange,
} from '../../../repositories/tray/changes';
import { listSheetRecipes } from '../../../repositories/tray/sheet-recipes';
import { appendAllToLedger } from '../../../repositories/ledger';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount } from '../../open-workbench';
import type { SmallFile } from '../../small-file';
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
  const tables = 'sheets' in file ? file.sheets.map(({ text }) => toTable(text, '\t')) : [toTable(file.text)];
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const set = await findSet(deps.db, open.account.id, setId);
  if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
  const waiting = (await loadChangesOf(deps.db, open.account.id, setId)).filter(isWaiting);
  const given = waiting.map((stored) => ({ id: stored.id, cells: cellsOfChange(open, stored) }));
  const recipes = [...(await listSheetRecipes(deps.db, open.account.id)), USUAL_RECIPE];
  const said = new Map(waiting.map(({ id, change }) => [id, describeChange(change, open.names)]));
  const named = (id: number) => ({ id, said: said.get(id)! });
  let fault = '';
  for (const table of tables) {
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

/** Lines of text as rows of cells; the parser finds the separator where none is said. */
function toTable(text: string, delimiter = ''): string[][] {
  return Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimiter }).data;
}

const isWaiting = ({ state }: StoredChange) => state === 'drafted' || state === 'said';

/**
 * Stores what a result sheet says: what was carried out counts as in force from now on, as said to be done; what failed
 * is in the tray again with the reason. Changes of which nothing is said go on waiting.
 * @throws Refusal when one of the changes does not wait any more; nothing is stored then
 */
export async function storeResults(
  deps: Deps,
  slug: string,
  personId: number,
  setId: number,
  results: readonly { id: number; failed: string | null }[],
): Promise<{ done: number; failed: number; waiting: number }> {
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
    return { done: outcomes.size - failed.length, failed: failed.length, waiting };
  });
}

const afterOf = ({ state, answerText }: StoredChange) =>
  state === 'refused' ? { state, answer: answerText } : { state };

/** What failed by a result sheet waits again in its tray, and what was drafted anew for it leaves the draft. */
export async function takeBackResults(trx: Db, accountId: number, setId: number): Promise<void> {
  const failed = (await loadChangesOf(trx, accountId, setId)).filter(
    ({ state, answerCode }) => state === 'refused' && answerCode === BY_SHEET,
  );
  if (failed.length === 0) return;
  const reasons = new Map(failed.map((stored) => [changeKey(stored.change), stored.answerText]));
  const anew = (await loadDraft(trx, accountId)).filter(
    ({ change, failedBefore }) => failedBefore !== null && reasons.get(changeKey(change)) === failedBefore,
  );
  await deleteDrafted(
    trx,
    accountId,
    anew.map(({ id }) => id),
  );
  await updateChanges(
    trx,
    accountId,
    setId,
    failed.map(({ id }) => ({ id, state: 'said' as const })),
  );
}
