import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import {
  deleteSheet,
  findSheet,
  insertSheet,
  listSheets,
  updateSheet,
} from '../../repositories/research/sheets';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** The research sheets of an account, the newest first. */
export async function viewSheets(deps: Deps, slug: string) {
  const { id } = await requireAccount(deps, slug);
  return { sheets: await listSheets(deps.db, id) };
}

/** @returns its id @throws Refusal when another one has the name */
export async function makeSheet(
  deps: Deps,
  slug: string,
  personId: number,
  name: string,
): Promise<{ sheetId: number }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const sheetId = await insertSheet(trx, id, personId, name);
    if (sheetId === undefined)
      throw new Refusal(`There is a sheet ${name} already. Give it another name. Nothing was changed.`, 409);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Begin the research sheet ${name}`,
    });
    await raiseDecisionVersion(trx, id);
    return { sheetId };
  });
}

/** Sets the words that all of it is about, or the texts that are struck out of all ideas. */
export async function changeSheet(
  deps: Deps,
  slug: string,
  sheetId: number,
  fields: { stems?: string[]; struck?: string[] },
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await findSheet(trx, id, sheetId, { lock: true }))) throw gone();
    await updateSheet(trx, id, sheetId, fields);
    await raiseDecisionVersion(trx, id);
  });
}

/** Throws a sheet away, with its ideas; what was put in the tray from it stays there. */
export async function dropSheet(deps: Deps, slug: string, personId: number, sheetId: number): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const sheet = await findSheet(trx, id, sheetId, { lock: true });
    if (!sheet) throw gone();
    await deleteSheet(trx, id, sheetId);
    await raiseDecisionVersion(trx, id);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Throw the research sheet ${sheet.name} away`,
    });
  });
}

const gone = () => new Refusal('There is no such sheet any more. Nothing was changed.', 404);
