import { describeChange } from '@/core';
import type { Ending } from '@/contracts/today';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { listEndingWithin } from '../tray/end-dates';

/** Stops are told of so many days before they end. */
const SOON = 14;

/** The stops that end soon, the next first. */
export async function viewEnding(deps: Deps, slug: string): Promise<Ending> {
  const account = await requireAccount(deps, slug);
  const ending = await listEndingWithin(deps, account, SOON);
  if (ending.length === 0) return { ending: [] };
  const { names } = await openWorkbench(deps, account);
  return {
    ending: ending.map(({ id, change, endsOn }) => ({
      ...{ changeId: id, said: describeChange(change, names), endsOn },
    })),
  };
}
