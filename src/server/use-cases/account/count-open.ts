import * as v from 'valibot';
import type { OpenCounts } from '@/contracts/account';
import { FiltersSchema } from '@/contracts/sift';
import { listReportFiles } from '../../repositories/intake/reports';
import { listWaitingVersions } from '../../repositories/lists/list-versions';
import type { Account } from '../../repositories/account/accounts';
import { loadUnderway } from '../../repositories/tray/changes';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import { openWorkbench, requireAccount } from '../open-workbench';
import { findOnce } from '../sift/sift-terms';
import { countConflicts } from '../untangle/view-conflicts';
import { countFindings } from '../rules/findings';
import type { Deps } from '../deps';

/** Terms that nobody has decided about and that surely miss their target (rules 7.3). */
const SURELY_MISSING = v.parse(FiltersSchema, { view: 'remaining', evidence: 'sure' });

/** What waits for somebody in each screen: the rail shows it. */
export async function countOpen(deps: Deps, slug: string): Promise<OpenCounts> {
  const account = await requireAccount(deps, slug);
  const files = await listReportFiles(deps.db, account.id);
  const waiting = await listWaitingVersions(deps.db, account.id);
  const outside = await listOutsideChanges(deps.db, account.id);
  return {
    intake: files.filter(({ state }) => state === 'uploaded' || state === 'failed').length,
    sift: account.dataVersion === 0 ? 0 : await countSurelyMissing(deps, slug),
    untangle: await countConflicts(deps, slug),
    rules: account.dataVersion === 0 ? 0 : await countFindings(deps, slug),
    lists: waiting.length + outside.length,
    ledger: (await loadUnderway(deps.db, account.id)).length,
    account: hasTarget(account) ? 0 : 1,
  };
}

/** Whether there is something to steer by. */
export const hasTarget = ({ steersBy, targetMicros, targetAcos }: Account) =>
  (steersBy === 'CPA' ? targetMicros : targetAcos) !== null;

async function countSurelyMissing(deps: Deps, slug: string): Promise<number> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  return findOnce(open, SURELY_MISSING, null).counts.remaining;
}
