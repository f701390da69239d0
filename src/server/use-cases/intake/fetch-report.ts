import { shiftDay } from '@/core';
import {
  listAccounts,
  requirePlatform,
  setFetchesDaily,
  setPlatformState,
  type Account,
} from '../../repositories/account/accounts';
import { findDataDays, findLoadedByDigest, moveReportFile } from '../../repositories/intake/reports';
import type { Faults } from '@/contracts/platform';
import { endStops } from '../tray/end-dates';
import { OutsideTrouble } from '../../outside';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { refreshMirror } from '../tray/read-back';
import { dropFetchedTwice } from './clear-files';
import { takeIn } from './take-in';

/** The days that are fetched again, because their conversions were still growing at the first fetch. */
const STILL_GROWING = 4;

/**
 * Fetches structure and newest report from the platform; the report goes through Intake like any file.
 * @returns the file that is being loaded, or null when there was nothing new
 * @throws Refusal when the platform does not answer; nothing was changed then
 */
export async function fetchReport(deps: Deps, slug: string, personId: number | null): Promise<number | null> {
  const account = await requireConnected(deps, slug);
  try {
    const { today } = await refreshMirror(deps, account.id);
    const days = await findDataDays(deps.db, account.id);
    const from = days ? shiftDay(days.to, -STILL_GROWING) : '1990-01-01';
    const bytes = await deps.platform.report(requirePlatform(account), { from, to: today });
    const [file] = await takeIn(
      deps,
      slug,
      { name: `report of ${today}`, source: 'platform', personId },
      bytes,
    );
    if (!file) return null;
    if (await findLoadedByDigest(deps.db, account.id, file.digest)) {
      await dropFetchedTwice(deps);
      return null;
    }
    await deps.db.transaction(async (trx) => {
      await moveReportFile(trx, account.id, file.id, ['uploaded'], 'waiting', { options: {} });
      await deps.enqueue(trx, { name: 'load-report', accountId: account.id, reportFileId: file.id });
    });
    return file.id;
  } catch (error) {
    throw toRefusal(error);
  }
}

/** @throws Refusal when no platform is connected */
async function requireConnected(deps: Deps, slug: string): Promise<Account> {
  const account = await requireAccount(deps, slug);
  if (account.platformAccountId !== null) return account;
  throw new Refusal(
    `${account.name} is connected to no platform. Bring its reports in Intake, or connect it on the Account screen.`,
    409,
  );
}

/** Switches the daily fetching of the newest report on or off. */
export async function setDailyFetch(deps: Deps, slug: string, daily: boolean): Promise<void> {
  const account = await (daily ? requireConnected(deps, slug) : requireAccount(deps, slug));
  await setFetchesDaily(deps.db, account.id, daily);
}

/**
 * The job that fetches the newest report of each account that wants it daily. A platform that is down does not keep the
 * other accounts waiting.
 */
export async function fetchDaily(deps: Deps): Promise<void> {
  const failures: unknown[] = [];
  for (const account of await listAccounts(deps.db)) {
    if (!account.fetchesDaily || account.isRetired || account.platformAccountId === null) continue;
    await fetchReport(deps, account.slug, null).catch((error: unknown) => failures.push(error));
  }
  if (failures.length > 0) throw new AggregateError(failures, 'some reports could not be fetched');
}

/** Lets days pass on the stand-in platform. */
export async function moveClock(deps: Deps, slug: string, days: number): Promise<string> {
  const account = await requireConnected(deps, slug);
  try {
    const { today } = await deps.platform.moveClock(requirePlatform(account), days);
    await setPlatformState(deps.db, account.id, { today });
    await endStops(deps, account.id);
    return today;
  } catch (error) {
    throw toRefusal(error);
  }
}

/** What is to go wrong on the stand-in platform. @param faults in place of what is on; null only asks */
export async function setFaults(deps: Deps, slug: string, faults: Faults | null): Promise<Faults> {
  const account = await requireConnected(deps, slug);
  try {
    return await deps.platform.faults(requirePlatform(account), faults);
  } catch (error) {
    throw toRefusal(error);
  }
}

function toRefusal(error: unknown): unknown {
  return error instanceof OutsideTrouble
    ? new Refusal(`${error.message} Nothing was changed. Try again when it runs.`, 502)
    : error;
}
