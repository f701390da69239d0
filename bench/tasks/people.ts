import { withFreshDemo } from '../../scripts/steps/fresh-demo';
import { readSettings } from '../../scripts/steps/settings';
import { count, ms, type Line } from '../measure';
import {
  clearTray,
  fillTray,
  letPeopleAsk,
  letPeopleWork,
  listTerms,
  summaryOf,
  type Crowd,
} from '../people';

const PEOPLE = 50;
/** Times of the bare route that a request may take at most. */
const MOST = { middle: 10, high: 25 };

/**
 * Fifty people at work on the demo account at the same time, against as many who ask a bare route of the same server that
 * reads one row: with 400 changes in the tray, then with few and with many.
 */
export async function benchPeople(quick: boolean): Promise<Line[]> {
  const seconds = quick ? 10 : 60;
  return withFreshDemo(readSettings('test'), { scale: 1, hasPast: false }, async (address) => {
    const crowd: Crowd = { address, slug: 'larkfell-web', people: PEOPLE, seconds };
    const terms = await listTerms(crowd);
    await letPeopleAsk({ ...crowd, seconds: 5 }, 'pulse'); // warms up
    const work = async (changes: number) => {
      await clearTray(crowd);
      await fillTray(crowd, changes, terms);
      const before = summaryOf(await letPeopleAsk({ ...crowd, seconds: seconds / 4 }, 'pulse'));
      const load = await letPeopleWork(crowd, terms);
      const after = summaryOf(await letPeopleAsk({ ...crowd, seconds: seconds / 4 }, 'pulse'));
      if (load.failed.length > 0) throw new Error(`${load.failed.length} failed; ${load.failed[0]}`);
      const mean = (one: keyof typeof before) => (before[one] + after[one]) / 2;
      return {
        ours: summaryOf(load),
        bare: { middle: mean('middle'), high: mean('high'), rate: mean('rate') },
      };
    };
    const usual = await work(400);
    const few = await work(20);
    const many = await work(2_000);
    const size = `${PEOPLE} people, ${seconds} s, 12,000 terms, 400 changes`;
    const against = (limit: number, bare: number) => `limit: ${limit} × a bare route (${ms(bare)})`;
    const verdict = (isSo: boolean) => (isSo ? 'within' : 'OVER');
    return [
      ...(['middle', 'high'] as const).map((part) => ({
        task: `people at work: ${part === 'middle' ? 'median' : '95th percentile'} of a request`,
        ...{ size, ours: ms(usual.ours[part]), against: against(MOST[part], usual.bare[part]) },
        ratio: (usual.ours[part] / (MOST[part] * usual.bare[part])).toFixed(2),
        verdict: verdict(usual.ours[part] <= MOST[part] * usual.bare[part]),
      })),
      {
        ...{ task: 'requests a second', size, ours: count(Math.round(usual.ours.rate)) },
        against: `a bare route: ${count(Math.round(usual.bare.rate))}`,
        ...{ ratio: (usual.ours.rate / usual.bare.rate).toFixed(2), verdict: '' },
      },
      {
        ...{ task: 'a decision: median, with 2,000 changes in the tray', size, ours: ms(many.ours.decided) },
        against: `with 20 changes (${ms(few.ours.decided)}), as times of the bare route in its run`,
        ratio: (many.ours.decided / many.bare.middle / (few.ours.decided / few.bare.middle)).toFixed(2),
        verdict: '',
      },
    ];
  });
}
