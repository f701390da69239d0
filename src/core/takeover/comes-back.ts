import type { Habits } from './habits';
import { sharedUnseen } from './shared-queries';

/** A stop of one text: where it would be stopped, and where it ran or may run besides. */
export type Stopped = {
  /** what serves it where it is stopped, with the days on which it did; the ad groups are closed to it then */
  from: readonly { source: number; days: number }[];
  /** days on which it ran in other ad groups, over the days that habits were learnt from */
  ran: readonly { adGroup: number; days: number }[];
  /** ad groups of which a live keyword holds with it by its words */
  named: readonly number[];
  /** whether an ad group runs and nothing would stop the text there */
  isOpen: (adGroup: number) => boolean;
};

/** What of it comes back in an ad group. */
export type ComesBack = {
  adGroup: number;
  /** of what is stopped, from 0; 1 and more where the query is seen as often there, or more often */
  share: number;
  /** the same text ran there; else queries like it did, or a keyword there holds with its words */
  isSeen: boolean;
};

/**
 * The shares of a stopped text that running ad groups take over, the largest first (rules 13.1): where it ran itself surely, elsewhere
 * as often as queries of the same source did.
 * @example const habits = learnHabits({ textOf: [], adGroupOf: [], sourceOf: [], days: [], impressions: [] }, () => []); comesBack(habits, { from: [{ source: 7, days: 3 }], ran: [{ adGroup: 2, days: 1 }], named: [], isOpen: () => true }) // [{ adGroup: 2, isSeen: true, share: 1 }]
 */
export function comesBack(habits: Habits, { from, ran, named, isOpen }: Stopped): ComesBack[] {
  const days = from.reduce((sum, one) => sum + one.days, 0);
  const main = from.reduce((a, b) => (b.days > a.days ? b : a)).source;
  const places = new Map<
    number,
    { probability: number; pull: number; visibility: number; isSeen: boolean }
  >();
  for (const { adGroup, days: there } of ran) {
    if (!isOpen(adGroup)) continue;
    const visibility = habits.of(main, adGroup, true)!.visibility;
    places.set(adGroup, { probability: 1, pull: there / (there + days), visibility, isSeen: true });
  }
  for (const { source } of from)
    for (const adGroup of new Set([...habits.beside(source), ...named])) {
      if (places.get(adGroup)?.isSeen || !isOpen(adGroup)) continue;
      const habit = habits.of(source, adGroup, named.includes(adGroup));
      if (!habit) continue;
      const probability = sharedUnseen(habit, days);
      if (probability > (places.get(adGroup)?.probability ?? 0))
        places.set(adGroup, { ...habit, probability, isSeen: false });
    }
  let [nowhere, weights] = [1, 0];
  for (const { probability, pull } of places.values()) {
    nowhere *= 1 - probability;
    weights += probability * pull;
  }
  return Array.from(places, ([adGroup, { probability, pull, visibility, isSeen }]) => ({
    ...{ adGroup, isSeen, share: ((1 - nowhere) * visibility * probability * pull) / weights },
  })).sort((a, b) => b.share - a.share || a.adGroup - b.adGroup);
}
