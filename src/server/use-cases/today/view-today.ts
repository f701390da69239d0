import { describeChange } from '@/core';
import type { Days } from '@/contracts/days';
import type { Today } from '@/contracts/today';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { listEndingWithin, todayOf } from '../tray/end-dates';

/** Stops are told of so many days before they end. */
const SOON = 14;

/** What flowed by day and what it cost without return, and what ends soon. */
export async function viewToday(deps: Deps, slug: string, days?: Days): Promise<Today> {
  const account = await requireAccount(deps, slug);
  const { snapshot, names } = await openWorkbench(deps, account, days);
  const ending = await listEndingWithin(deps, account, SOON);
  return {
    ...{ window: snapshot.window, today: todayOf(deps, account) },
    days: snapshot.days.map(({ day, costMicros, returnedMicros }) => ({
      ...{ day, returnedMicros, openMicros: costMicros - returnedMicros },
    })),
    ending: ending.map(({ id, change, endsOn }) => ({
      ...{ changeId: id, said: describeChange(change, names), endsOn },
    })),
  };
}
