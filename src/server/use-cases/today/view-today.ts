import { LRUCache } from 'lru-cache';
import { lookBack, type Window } from '@/core';
import type { Days } from '@/contracts/days';
import type { Today } from '@/contracts/today';
import type { Account } from '../../repositories/account/accounts';
import { loadSpendByDay, type DaySpend } from '../../repositories/facts';
import { findDataDays } from '../../repositories/intake/reports';
import { derivedFrom } from '../../compute/derived';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { todayOf } from '../tray/end-dates';

/** What flowed by day and what it cost without return. The database sums it, so that the first screen waits for no window. */
export async function viewToday(deps: Deps, slug: string, days?: Days): Promise<Today> {
  const account = await requireAccount(deps, slug);
  const window = await windowOf(deps, account, days ?? account.windowDays);
  const spend = await spendsOf(deps.db).fetch(
    [account.id, account.factsVersion, window.from, window.to].join('|'),
    { context: { deps, account, window } },
  );
  return {
    ...{ window, today: todayOf(deps, account) },
    days: spend!.map(({ day, costMicros, returnedMicros }) => ({
      ...{ day, returnedMicros, openMicros: costMicros - returnedMicros },
    })),
  };
}

/** The days themselves, or a look-back from the newest day of data. */
async function windowOf({ db }: Deps, account: Account, days: Days): Promise<Window> {
  if (typeof days !== 'number') return days;
  const dataDays = await findDataDays(db, account.id);
  return lookBack(dataDays?.to ?? '1990-01-01', days, account.lagDays);
}

/** Windows whose spend is kept for a database. */
const MOST_SPENDS = 100;

type Asked = { deps: Deps; account: Account; window: Window };
const spendsOf = derivedFrom(
  (_: Deps['db']) =>
    new LRUCache<string, DaySpend[], Asked>({
      max: MOST_SPENDS,
      fetchMethod: (_key, _stale, { context: { deps, account, window } }) =>
        loadSpendByDay(deps.db, account.id, window),
    }),
);
