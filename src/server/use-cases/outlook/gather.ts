import { likelyRange, placeKey, type NegativeText, type Place } from '@/core';
import type { Outlook } from '@/contracts/outlook';
import type { Outlook as Foreseen } from '../../compute/outlook/outlook';
import type { Open } from '../open-workbench';

/** More places than that are named to nobody: they are counted in the net. */
const MOST_NAMED = 4;
/** What is less than this share of all that is stopped is noise. */
const LEAST_NAMED = 0.01;
/** More negatives than that are not put at a place by one press. */
const MOST_NEGATIVES = 1_000;

/** Adds up what is foreseen of some negatives, by the places at which each could be stopped, too. */
export function gather(open: Open) {
  const { adGroups } = open.snapshot.served;
  const places = new Map<
    string,
    { place: Place; costMicros: number; negatives: Map<string, NegativeText> }
  >();
  const sum = { stoppedMicros: 0, backMicros: 0, seenMicros: 0, variance: 0 };
  return {
    /** @param negative what is stopped by it can be stopped elsewhere by the same; null: by something else */
    add(
      { stoppedMicros, back, variance }: Foreseen,
      negative: NegativeText | null,
      stopsIn: Place['kind'],
    ): void {
      sum.stoppedMicros += stoppedMicros;
      sum.variance += variance;
      for (const [g, { costMicros, seenMicros }] of back) {
        const adGroup = adGroups[g]!;
        sum.backMicros += costMicros;
        sum.seenMicros += seenMicros;
        const place: Place =
          stopsIn === 'adGroup'
            ? { kind: 'adGroup', id: adGroup.id }
            : { kind: 'campaign', id: adGroup.campaignId };
        const key = placeKey(place);
        let at = places.get(key);
        if (!at) places.set(key, (at = { place, costMicros: 0, negatives: new Map() }));
        at.costMicros += costMicros;
        if (negative && costMicros > LEAST_NAMED * stoppedMicros)
          at.negatives.set(`${negative.match} ${negative.text}`, negative);
      }
    },
    tell(): Outlook {
      const { stoppedMicros, backMicros, seenMicros, variance } = sum;
      const netMicros = stoppedMicros - backMicros;
      const named = [...places.values()]
        .filter(({ costMicros }) => costMicros >= LEAST_NAMED * stoppedMicros)
        .sort((a, b) => b.costMicros - a.costMicros);
      return {
        days: open.snapshot.days.length,
        ...{ stoppedMicros, netMicros, likely: likelyRange(netMicros, variance, 1) },
        seen: backMicros > 0 ? seenMicros / backMicros : 1,
        back: named.slice(0, MOST_NAMED).map(({ place, costMicros, negatives }) => ({
          ...{ place, costMicros },
          name: nameOf(open, place),
          negatives: [...negatives.values()].slice(0, MOST_NEGATIVES),
        })),
      };
    },
  };
}

function nameOf({ names }: Open, { kind, id }: Place): string {
  return (kind === 'adGroup' ? names.adGroup(id!) : names.campaign(id!)) ?? '';
}
