import { shiftDay } from '@/core';
import { makeOwnWorld, type World } from './world';

/** Newest day of the report; the window ends two days before. */
export const NEWEST = '2026-11-20';
export const [RECENT, OLD] = [shiftDay(NEWEST, -5), shiftDay(NEWEST, -80)];

type Served = {
  day?: string;
  group?: string;
  term: string;
  clicks: number;
  cost: number;
  conversions?: number;
};
/** One line of a report. */
export const line = ({ day = RECENT, group = 'Starter', term, clicks, cost, conversions = 0 }: Served) =>
  [
    day,
    'Hives',
    group,
    `${group.toLowerCase()} hive`,
    'phrase',
    term,
    clicks * 20,
    clicks,
    cost,
    conversions,
  ].join(',');
const each = (count: number, of: (i: number) => Served) => Array.from({ length: count }, (_, i) => of(i));

/** Words at fault, terms that miss, an ad group that is too dear, and what must stay open. */
export const REPORT = [
  'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions',
  ...[
    ...each(12, (i) => ({ term: `starter hive ${i}`, clicks: 60, cost: 30, conversions: 3 })),
    ...each(12, (i) => ({ day: OLD, term: `starter hive ${i}`, clicks: 60, cost: 30, conversions: 3 })),
    // words at fault: one that never brought anything, one that did once, one that a keyword holds, one of our own
    ...each(8, (i) => ({ day: OLD, term: `hive jobs ${i}`, clicks: 40, cost: 20 })),
    ...each(8, (i) => ({ term: `hive jobs ${i}`, clicks: 10, cost: 5 })),
    ...each(8, (i) => ({
      day: OLD,
      term: `hive wholesale ${i}`,
      clicks: 60,
      cost: 30,
      conversions: i === 3 ? 1 : 0,
    })),
    ...each(8, (i) => ({ term: `hive wholesale ${i}`, clicks: 10, cost: 4 })),
    ...each(8, (i) => ({ term: `hive larkfell ${i}`, clicks: 50, cost: 25 })),
    ...each(8, (i) => ({ group: 'Maps', term: `bee ${i} maps`, clicks: 50, cost: 25 })),
    ...each(4, (i) => ({ group: 'Maps', term: `chart ${i}`, clicks: 50, cost: 25, conversions: 4 })),
    // sold in the days before the window
    { day: OLD, term: 'starter hive sold', clicks: 60, cost: 24, conversions: 5 },
    { term: 'starter hive sold', clicks: 40, cost: 36 },
    // worse than its neighbours, and an ad group that is too dear as a whole
    { term: 'starter hive kit', clicks: 200, cost: 90, conversions: 9 },
    { term: 'hive kit large', clicks: 200, cost: 90, conversions: 9 },
    { term: 'starter hive kit large', clicks: 300, cost: 300 },
    ...each(10, (i) => ({ group: 'Silver', term: `silver ${i}`, clicks: 100, cost: 400, conversions: 1 })),
    { group: 'Silver', term: 'silver plain', clicks: 90, cost: 360, conversions: 0.6 },
    { day: NEWEST, term: 'starter hive 0', clicks: 1, cost: 0.5 },
  ].map(line),
].join('\n');

/** An account of one's own that steers by a CPA of 20 and has loaded the report. */
export async function makePassWorld(): Promise<World> {
  const steering = { currency: 'EUR', steersBy: 'CPA', target: '20' } as const;
  const world = await makeOwnWorld({ name: 'Pass', ...steering, person: 'Maren Oakes' });
  await world.load(REPORT);
  return world;
}
