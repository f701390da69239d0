import { formatISO, isSunday, parseISO, previousSunday } from 'date-fns';
import { LRUCache } from 'lru-cache';
import { formatAmount, shiftDay } from '@/core';
import { derivedFrom } from '../../compute/derived';
import type { Snapshot } from '../../compute/snapshot';
import { sumOfDays } from '../../repositories/facts';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';

const WEEK = 7;

/**
 * The newest week, from Monday to Sunday, of which the conversions are in, where it cost more than the target; weeks by the calendar,
 * so that each is told of once, whatever day somebody looks.
 * @returns null where the target was met, none is set, or no whole week is known
 */
export async function missedWeek(
  deps: Deps,
  { account, snapshot }: Open,
): Promise<{ to: string; says: string } | null> {
  const { dataDays } = snapshot;
  const target = account.steersBy === 'CPA' ? account.targetMicros : account.targetAcos;
  if (dataDays === null || target === null) return null;
  const known = shiftDay(dataDays.to, -account.lagDays);
  const to = lastSundayUntil(known);
  const from = shiftDay(to, 1 - WEEK);
  if (from < dataDays.from) return null;
  const { costMicros, conversions, valueMicros } = await sumsOf(snapshot).forceFetch(from, {
    context: { db: deps.db, accountId: account.id, days: { from, to } },
  });
  const brought = account.steersBy === 'CPA' ? conversions : valueMicros;
  if (costMicros <= target * brought) return null;
  const say = (amount: number) =>
    account.steersBy === 'CPA'
      ? `${formatAmount(amount, account.currency)} ${account.currency}`
      : `${Number((100 * amount).toFixed(2))} %`;
  const came =
    brought > 0 ? `the ${account.steersBy} was ${say(costMicros / brought)}` : 'nothing was returned';
  return { to, says: `In the week to ${to} ${came}, and the target is ${say(target)}` };
}

function lastSundayUntil(day: string): string {
  const date = parseISO(day);
  return formatISO(isSunday(date) ? date : previousSunday(date), { representation: 'date' });
}

type Asked = { db: Deps['db']; accountId: number; days: { from: string; to: string } };
const MOST_WEEKS = 4;

/** Weeks of a snapshot by their first day: summed once, however many look. */
const sumsOf = derivedFrom(
  (_: Snapshot) =>
    new LRUCache<string, Awaited<ReturnType<typeof sumOfDays>>, Asked>({
      max: MOST_WEEKS,
      fetchMethod: (_key, _stale, { context: { db, accountId, days } }) => sumOfDays(db, accountId, days),
    }),
);
