import { productCodeTest, readReport, type RejectedRow } from '@/core';
import { lockAccount, raiseDataVersion, requireAccountById } from '../repositories/accounts';
import { analyseFacts } from '../repositories/facts';
import { appendLedger } from '../repositories/ledger';
import {
  findLoadedByDigest,
  findReportFile,
  moveReportFile,
  noteProgress,
  replaceRejectedRows,
  type LoadOutcome,
} from '../repositories/reports';
import { openStaging } from '../repositories/staging';
import type { Deps } from './deps';
import { openStored } from './take-in';

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
    await analyseFacts(deps.db);
  } catch (error) {
    if (error instanceof Cancelled) {
      await moveReportFile(deps.db, accountId, reportFileId, ['loading'], 'cancelled', { error: null });
      return;
    }
    if (error instanceof NotReadable) {
      await moveReportFile(deps.db, accountId, reportFileId, ['loading'], 'failed', { error: error.message });
      return;
    }
    throw error; // the queue tries again; what was staged is gone with the transaction
  }
}

/** The file can not be read as it was asked for; trying again is of no use. */
class NotReadable extends Error {
  override name = 'NotReadable';
}

async function loadWithin(
  deps: Deps,
  trx: Parameters<typeof openStaging>[0],
  accountId: number,
  reportFileId: number,
) {
  const account = await requireAccountById(trx, accountId);
  const file = (await findReportFile(trx, accountId, reportFileId))!;
  const staging = await openStaging(trx, productCodeTest(account.productCodePattern));
  const rejected: RejectedRow[] = [];
  let [read, noted] = [0, 0];
  const goOn = async () => {
    if (await noteProgress(deps.db, accountId, reportFileId, read)) throw new Cancelled();
  };

  const reading = await readReport(openStored(deps, file), {
    ...file.options,
    roles: file.options.roles as never,
    async onRows(rows) {
      await staging.write(rows);
      read += rows.length;
      if (read - noted < NOTE_EVERY) return;
      noted = read;
      await goOn();
    },
    onRejected: (rows) => void rejected.push(...rows.slice(0, MOST_REJECTED - rejected.length)),
  }).catch(async (error: Error) => {
    await staging.abort(error);
    throw error;
  });
  await staging.finish();
  if (reading.error) throw new NotReadable(`${reading.error.message} Nothing was loaded.`);
  await goOn();

  await lockAccount(trx, accountId);
  if (await findLoadedByDigest(trx, accountId, file.digest))
    throw new NotReadable('This file was loaded meanwhile. Nothing was changed.');
  const merged = await staging.merge(accountId, goOn);
  const outcome: LoadOutcome = {
    rows: reading.rows,
    rejected: reading.rejectedCount,
    days: reading.days,
    ...merged,
  };
  await replaceRejectedRows(trx, accountId, reportFileId, rejected);
  await moveReportFile(trx, accountId, reportFileId, ['loading'], 'loaded', {
    outcome,
    error: null,
    loaded: true,
  });
  await raiseDataVersion(trx, accountId);
  await appendLedger(trx, accountId, {
    actor: file.personId === null ? 'read-back' : { person: file.personId },
    about: 'load',
    what: `Load ${file.name}: ${outcome.rows.toLocaleString('en')} rows, ${outcome.added.toLocaleString('en')} new, ${outcome.replaced.toLocaleString('en')} replaced, ${outcome.rejected.toLocaleString('en')} refused`,
    after: outcome,
  });
}
