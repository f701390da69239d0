import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import {
  findSheet,
  insertSheet,
  listSheets,
  setDropped,
  updateSheet,
} from '../../repositories/research/sheets';
import { listSources, setOut } from '../../repositories/research/sources';
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

/**
 * Sets the name, the words that all of it is about, or the texts that are struck out of all ideas.
 * @throws Refusal when there is no such sheet, or another one has the name
 */
export async function changeSheet(
  deps: Deps,
  slug: string,
  sheetId: number,
  fields: { name?: string; stems?: string[]; struck?: string[] },
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await findSheet(trx, id, sheetId, { lock: true }))) throw gone();
    const { name } = fields;
    const isTaken = (await listSheets(trx, id)).some((one) => one.name === name && one.id !== sheetId);
    if (isTaken)
      throw new Refusal(`There is a sheet ${name} already. Give it another name. Nothing was changed.`, 409);
    await updateSheet(trx, id, sheetId, fields);
    await raiseDecisionVersion(trx, id);
  });
}

/** Throws a sheet away, with its ideas; it can be taken back, and what was put in the tray from it stays there. */
export async function dropSheet(deps: Deps, slug: string, personId: number, sheetId: number): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const sheet = await findSheet(trx, id, sheetId, { lock: true });
    if (!sheet) throw gone();
    await setDropped(trx, id, sheetId, true);
    await raiseDecisionVersion(trx, id);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Throw the research sheet ${sheet.name} away`,
    });
  });
}

/** Takes a sheet back that was thrown away. @throws Refusal when another one has its name by now */
export async function takeSheetBack(
  deps: Deps,
  slug: string,
  personId: number,
  sheetId: number,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await setDropped(trx, id, sheetId, false)))
      throw new Refusal(
        'Another sheet has its name by now: name that one otherwise. Nothing was changed.',
        409,
      );
    await raiseDecisionVersion(trx, id);
    const sheet = await findSheet(trx, id, sheetId);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Take the research sheet ${sheet?.name ?? ''} back`,
    });
  });
}

/** Takes a source out of a sheet, with the ideas that no other one gave, or puts it back. */
export async function takeSourceOut(
  deps: Deps,
  slug: string,
  personId: number,
  sheetId: number,
  { source, isOut }: { source: number; isOut: boolean },
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const sheet = await findSheet(trx, id, sheetId, { lock: true });
    const found = sheet && (await listSources(trx, id, sheetId)).find((one) => one.id === source);
    if (!sheet || !found) throw gone();
    await setOut(trx, id, sheetId, source, isOut);
    await updateSheet(trx, id, sheetId, {}, { haveIdeasCome: true });
    await raiseDecisionVersion(trx, id);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: isOut
        ? `Take ${found.title} out of ${sheet.name}`
        : `Put ${found.title} into ${sheet.name} again`,
    });
  });
}

const gone = () => new Refusal('There is no such sheet any more. Nothing was changed.', 404);
