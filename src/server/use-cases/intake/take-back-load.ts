import type { Db } from '../../db/connection';
import { lockAccount, raiseDataVersion, raiseFactsVersion } from '../../repositories/account/accounts';
import { deleteIdeasOf } from '../../repositories/intake/ideas';
import { findSuperseder, takeKeywordDaysBack } from '../../repositories/keyword-days';
import { appendLedger } from '../../repositories/ledger';
import { findReportFile, moveReportFile, type ReportFile } from '../../repositories/intake/reports';
import { findReplacer, takeFactsBack } from '../../repositories/intake/taking-back';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { packFacts } from './pack-facts';
import { requireReportFile } from './take-in';

/**
 * Asks for a load to be taken back as a whole: what it added goes, what it replaced comes back.
 * @throws Refusal when a later load has replaced rows of it
 */
export async function askToTakeBack(
  deps: Deps,
  slug: string,
  id: number,
  personId: number,
  undoes?: number,
): Promise<void> {
  const account = await requireAccount(deps, slug);
  const file = await requireReportFile(deps, account.id, id);
  await refuseIfReplaced(deps, file, account.id);
  if (file.kind === 'structure') {
    throw new Refusal(
      'A structure file can not be taken back: what it named may be in use. Bring the structure as it should be.',
      409,
    );
  }
  await deps.db.transaction(async (trx) => {
    if (!(await moveReportFile(trx, account.id, id, ['loaded'], 'taking back')))
      throw new Refusal('Only what was loaded can be taken back.', 409);
    await deps.enqueue(trx, {
      name: 'take-back-load',
      accountId: account.id,
      reportFileId: id,
      personId,
      undoes,
    });
  });
}

async function refuseIfReplaced(deps: Deps, file: ReportFile, accountId: number) {
  const later =
    file.kind === 'keywords'
      ? await findSuperseder(deps.db, accountId, file.id)
      : await findReplacer(deps.db, accountId, file.id);
  if (later === undefined) return;
  throw new Refusal(
    `${later} was loaded later and replaced rows of this one. Take that back first. Nothing was changed.`,
    409,
  );
}

/** The job: all of it or nothing, in one transaction. May be called again after a fall. */
export async function takeBackLoad(
  deps: Deps,
  accountId: number,
  reportFileId: number,
  personId: number,
  undoes?: number,
): Promise<void> {
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const file = await findReportFile(trx, accountId, reportFileId);
    if (file?.state !== 'taking back') return;
    const { removed, restored } = await takeRowsBack(trx, accountId, file);
    await moveReportFile(trx, accountId, reportFileId, ['taking back'], 'taken back', { error: null });
    if (file.kind === 'search terms') await raiseFactsVersion(trx, accountId);
    else await raiseDataVersion(trx, accountId);
    await appendLedger(trx, accountId, {
      actor: { person: personId },
      about: 'load',
      what: `Take back ${file.name}: ${removed.toLocaleString('en')} rows removed, ${restored.toLocaleString('en')} put back`,
      before: file.outcome,
      ...{ undo: { do: 'load again', file: reportFileId }, undoes },
    });
  });
  await packFacts(deps, accountId);
  await deps.enqueue(deps.db, { name: 'run-rules', accountId });
  await deps.enqueue(deps.db, { name: 'fit-weeks', accountId });
}

async function takeRowsBack(
  trx: Db,
  accountId: number,
  { id, kind, outcome }: ReportFile,
): Promise<{ removed: number; restored: number }> {
  switch (kind) {
    case 'search terms':
      if (!outcome?.days) return { removed: 0, restored: 0 };
      return takeFactsBack(trx, accountId, id, outcome.days);
    case 'keywords':
      return takeKeywordDaysBack(trx, accountId, id);
    case 'keyword ideas':
      return { removed: await deleteIdeasOf(trx, accountId, id), restored: 0 };
    case 'structure':
      throw new RangeError('a structure file can not be taken back');
  }
}
