import type { Habit, Habits } from './habits';
import { sharedUnseen } from './shared-queries';

/** A stop of one text: where it would be stopped, and where it ran or may run besides. */
export type Stopped = {
  /** what serves it where it is stopped, with the days on which it did; the ad groups are closed to it then */
  from: readonly { source: number; days: number }[];
  /** days on which it ran in other ad groups, over the days that habits were learnt from */
  ran: readonly { adGroup: number; days: number }[];
  /** ad groups of which a live keyword holds with it by its words */
  named: readonly number[];
};

/** An ad group that may take a stopped text over. */
export type Taker = {
  adGroup: number;
  /** that it can serve the text */
  probability: number;
  /** of the days of the text, the share that it serves */
  pull: number;
  /** impressions on a day there, as a share of those where it is stopped */
  visibility: number;
  /** the same text ran there; else queries like it did, or a keyword there holds with its words */
  isSeen: boolean;
};

/** What of a stopped text comes back in an ad group. */
export type ComesBack = {
  adGroup: number;
  /** of what is stopped, from 0; 1 and more where the query is seen as often there, or more often */
  share: number;
  isSeen: boolean;
};

/** Who is less likely to take it over is left out. */
const LEAST_LIKELY = 0.001;

/**
 * The ad groups that may take a stopped text over, whether they are open to it or not (rules 13.1): where it ran itself surely, elsewhere
 * as often as queries of the same source did.
 * @example takersOf(learnHabits({ textOf: [], adGroupOf: [], sourceOf: [], days: [], impressions: [] }, () => []), { from: [{ source: 7, days: 3 }], ran: [{ adGroup: 2, days: 1 }], named: [] }) // [{ adGroup: 2, probability: 1, pull: 0.25, visibility: 1, isSeen: true }]
 */
export function takersOf(habits: Habits, { from, ran, named }: Stopped): Taker[] {
  const days = from.reduce((sum, one) => sum + one.days, 0);
  const main = from.reduce((a, b) => (b.days > a.days ? b : a)).source;
  const takers = ran.map(({ adGroup, days: there }): Taker => {
    const { visibility } = habits.beside(main).find((one) => one.adGroup === adGroup)?.named ?? habits.usual;
    return { ...{ adGroup, visibility }, probability: 1, pull: there / (there + days), isSeen: true };
  });
  const consider = (adGroup: number, { share, pull, visibility }: Habit) => {
    if (share < LEAST_LIKELY) return; // what was never seen is less likely still
    const probability = sharedUnseen({ share, pull }, days);
    if (probability < LEAST_LIKELY) return;
    const known = takers.find((taker) => taker.adGroup === adGroup);
    if (!known) takers.push({ adGroup, probability, pull, visibility, isSeen: false });
    else if (known.probability < probability) Object.assign(known, { probability, pull, visibility });
  };
  for (const { source } of from) {
    const beside = habits.beside(source);
    for (const { adGroup, named: byName, others } of beside)
      consider(adGroup, named.includes(adGroup) ? byName : others);
    for (const adGroup of named)
      if (!beside.some((one) => one.adGroup === adGroup)) consider(adGroup, habits.usual);
  }
  return takers;
}

/**
 * The shares of a stopped text that open ad groups take over, the largest first.
 * @param isOpen whether an ad group runs and nothing would stop the text there
 * @example comesBack([{ adGroup: 2, probability: 0.5, pull: 0.3, visibility: 0.8, isSeen: false }], () => true) // [{ adGroup: 2, isSeen: false, share: 0.4 }]
 */
export function comesBack(takers: readonly Taker[], isOpen: (adGroup: number) => boolean): ComesBack[] {
  const back: ComesBack[] = [];
  let [nowhere, weights] = [1, 0];
  for (const { adGroup, probability, pull, visibility, isSeen } of takers) {
    if (!isOpen(adGroup)) continue;
    nowhere *= 1 - probability;
    weights += probability * pull;
    back.push({ adGroup, isSeen, share: visibility * probability * pull });
  }
  for (const one of back) one.share *= (1 - nowhere) / weights;
  return back.length < 2 ? back : back.sort((x, y) => y.share - x.share || x.adGroup - y.adGroup);
}
