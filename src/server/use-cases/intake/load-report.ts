import { productCodeTest, type ElementRow, type RejectedRow, type Reading } from '@/core';
import { readReportFile } from '../../files/open-report';
import {
  lockAccount,
  raiseDataVersion,
  raiseFactsVersion,
  raiseDecisionVersion,
  requireAccountById,
} from '../../repositories/account/accounts';
import { canBeCounted } from '../../repositories/facts';
import { beginPass, findNewestTermId } from '../../repositories/decisions/passes';
import { writeIdeas } from '../../repositories/intake/ideas';
import { appendLedger } from '../../repositories/ledger';
import {
  findLoadedByDigest,
  findReportFile,
  moveReportFile,
  noteProgress,
  replaceRejectedRows,
  type LoadOutcome,
} from '../../repositories/intake/reports';
import { openKeywordStaging } from '../../repositories/load/keyword-staging';
import { openStaging } from '../../repositories/load/staging';
import { writeElements } from '../../repositories/structure/structure-file';
import type { Deps } from '../deps';
import { compareSaid, renameAsSaid } from '../tray/hand-over/compare-said';
import { packFacts } from './pack-facts';
import { obstacleTo } from './read-upload';
import { pathOf } from './take-in';

/** Rows between two notes of progress (and looks whether someone asked to cancel). */
const NOTE_EVERY = 20_000;
/** Refused rows that are kept with their text. */
const MOST_REJECTED = 50_000;

class Cancelled extends Error {
  override name = 'Cancelled';
}

/**
 * Loads a file that waits: all of it or nothing, in one transaction. May be called again after a fall; a file that
 * was loaded is left as it is.
 */
export async function loadReport(deps: Deps, accountId: number, reportFileId: number): Promise<void> {
  const file = await findReportFile(deps.db, accountId, reportFileId);
  if (file?.state !== 'waiting' && file?.state !== 'loading') return;
  await moveReportFile(deps.db, accountId, reportFileId, ['waiting'], 'loading');
  try {
    await deps.db.transaction((trx) => loadWithin(deps, trx, accountId, reportFileId));
    await packFacts(deps, accountId);
    await deps.enqueue(deps.db, { name: 'note-knots', accountId });
    await deps.enqueue(deps.db, { name: 'run-rules', accountId });
    await deps.enqueue(deps.db, { name: 'fit-weeks', accountId });
  } catch (error) {
    if (error instanceof Cancelled) {
      await moveReportFile(deps.db, accountId, reportFileId, ['loading'], 'cancelled', { error: null });
      return;
    }
    if (error instanceof NotReadable) {
      await moveReportFile(deps.db, accountId, reportFileId, ['loading'], 'failed', { error: error.message });
      await deps.enqueue(deps.db, { name: 'raise-alerts', accountId });
      return;
    }
    throw error; // the queue tries again; what was staged is gone with the transaction
  }
}

/** The file can not be read as it was asked for; trying again is of no use. */
class NotReadable extends Error {
  override name = 'NotReadable';
}

type Written = Pick<LoadOutcome, 'added' | 'replaced' | 'newTerms' | 'said'>;

async function loadWithin(
  deps: Deps,
  trx: Parameters<typeof openStaging>[0],
  accountId: number,
  reportFileId: number,
) {
  const account = await requireAccountById(trx, accountId);
  const file = (await findReportFile(trx, accountId, reportFileId))!;
  const staging = openStaging(trx, productCodeTest(account.productCodePattern));
  const rejected: RejectedRow[] = [];
  const keywords = openKeywordStaging(trx);
  const elements: ElementRow[] = [];
  const ideas: Written = { added: 0, replaced: 0, newTerms: 0 };
  let [read, noted] = [0, 0];
  const goOn = async () => {
    if (await noteProgress(deps.db, accountId, reportFileId, read)) throw new Cancelled();
  };
  const count = async (rows: number) => {
    read += rows;
    if (read - noted < NOTE_EVERY) return;
    noted = read;
    await goOn();
  };

  const reading = await readReportFile(pathOf(deps, file), {
    ...file.options,
    currency: account.currency,
    async onRows(rows) {
      await staging.write(rows);
      await count(rows.length);
    },
    async onKeywords(rows) {
      await keywords.write(rows);
      await count(rows.length);
    },
    async onIdeas(rows) {
      const written = await writeIdeas(trx, accountId, reportFileId, rows);
      ideas.added += written.added;
      ideas.replaced += written.replaced;
      await count(rows.length);
    },
    async onElements(rows) {
      elements.push(...rows);
      await count(rows.length);
    },
    onRejected: (rows) => void rejected.push(...rows.slice(0, MOST_REJECTED - rejected.length)),
  });
  const obstacle = obstacleTo(reading, account);
  if (obstacle !== null) throw new NotReadable(`${obstacle} Nothing was loaded.`);
  await goOn();

  await lockAccount(trx, accountId);
  if (await findLoadedByDigest(trx, accountId, file.digest))
    throw new NotReadable('This file was loaded meanwhile. Nothing was changed.');
  if (reading.kind === 'structure' && account.platformAccountId !== null) {
    throw new NotReadable(
      `The structure of ${account.name} is read from its platform, so a file can not change it. Nothing was loaded.`,
    );
  }
  const newestTermId = await findNewestTermId(trx, accountId);
  const written = await write(reading);
  await refuseUncountable(trx, accountId, reading);
  if (reading.kind === 'search terms') await beginPass(trx, accountId, newestTermId);
  const outcome: LoadOutcome = {
    rows: reading.rows,
    rejected: reading.rejectedCount,
    days: reading.days,
    ...written,
  };
  await replaceRejectedRows(trx, accountId, reportFileId, rejected);
  await moveReportFile(trx, accountId, reportFileId, ['loading'], 'loaded', {
    kind: reading.kind,
    outcome,
    error: null,
    loaded: true,
  });
  if (reading.kind === 'search terms') await raiseFactsVersion(trx, accountId);
  else await raiseDataVersion(trx, accountId);
  await appendLedger(trx, accountId, {
    actor: file.personId === null ? 'read-back' : { person: file.personId },
    about: 'load',
    what: `Load ${file.name}: ${outcome.rows.toLocaleString('en')} rows, ${outcome.added.toLocaleString('en')} new, ${outcome.replaced.toLocaleString('en')} replaced, ${outcome.rejected.toLocaleString('en')} refused`,
    after: outcome,
    ...(reading.kind !== 'structure' && { undo: { do: 'take back load', file: reportFileId } }),
  });

  async function write({ kind }: Reading): Promise<Written> {
    switch (kind) {
      case 'search terms':
        return staging.merge({ accountId, reportFileId, period: file.options.period }, goOn);
      case 'keywords':
        return keywords.merge({ accountId, reportFileId, period: file.options.period });
      case 'keyword ideas':
        return ideas;
      case 'structure':
        return writeStructure(trx, accountId, elements);
    }
  }
}

/**
 * The cost of a file, in micro-units, from which on the load checks that the account's sums can still be counted
 * exactly.
 */
const MUCH_MICROS = 1e15;

/** @throws NotReadable when the account's costs or values would pass what the database can add up */
async function refuseUncountable(
  trx: Parameters<typeof openStaging>[0],
  accountId: number,
  { sums }: Reading,
): Promise<void> {
  if (Math.max(sums.costMicros ?? 0, sums.valueMicros ?? 0) < MUCH_MICROS) return;
  if (await canBeCounted(trx, accountId)) return;
  throw new NotReadable(
    'With this file the account’s costs or values would add up to more than can be counted. Nothing was loaded. See whether the unit of money is read right.',
  );
}

/** Writes a structure file to the mirror, and compares with it what was said to be done. */
async function writeStructure(
  trx: Parameters<typeof writeElements>[0],
  accountId: number,
  elements: readonly ElementRow[],
): Promise<Written> {
  await renameAsSaid(trx, accountId, elements);
  const written = await writeElements(trx, accountId, elements);
  const said = await compareSaid(trx, accountId, elements);
  if (said.compared > 0) await raiseDecisionVersion(trx, accountId);
  return { ...written, newTerms: 0, said };
}
