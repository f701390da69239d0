import { trafficChange, type PlayedRow } from '@/core';
import type { Snapshot } from '../../../compute/snapshot';
import type { SumSince, TrafficSince } from '../../../repositories/facts';
import type { ActingChange, Periods } from './acting';

/** Sums from the first period to before one: those of any stretch are a difference of two. */
type RunningSums = Float64Array;
type Summed = { since: string; amount: number };

/** What rows did over periods, and how the traffic of their places went. */
export type Played = { rowOf(row: number): PlayedRow<ActingChange> };

/**
 * @param sums of all terms that some change stops, by row of the snapshot
 * @param traffic of the whole campaigns: what stops leave alone is what is not of these terms
 */
export function playOver(
  snapshot: Snapshot,
  { starts, days }: Periods,
  sums: ReadonlyMap<number, readonly SumSince[]>,
  traffic: readonly TrafficSince[],
): Played {
  const at = new Map(starts.map((day, i) => [day, i]));
  const lay = (of: readonly Summed[]): RunningSums => {
    const laid = new Float64Array(starts.length + 1);
    for (const { since, amount } of of) laid[at.get(since)! + 1]! += amount;
    for (let i = 0; i < starts.length; i++) laid[i + 1]! += laid[i]!;
    return laid;
  };
  const campaignOf = (row: number) =>
    Number(snapshot.served.adGroups[snapshot.served.adGroupOf[row]!]!.campaignId);
  const { places, account } = leftAlone(traffic, sums, campaignOf, lay);

  const trafficOf = (campaign: number) => (change: ActingChange, period: number) => {
    const { first, end, days: known } = change.before;
    const aDay = (of: RunningSums) => ({
      before: (of[end]! - of[first]!) / known,
      since: (of[period + 1]! - of[period]!) / days[period]!,
    });
    const place = places.get(campaign) ?? account;
    const impressions = place[end]! - place[first]!;
    return trafficChange({ ...aDay(place), impressions }, aDay(account));
  };
  return {
    rowOf(row) {
      const costs = (sums.get(row) ?? []).map(({ since, costMicros }) => ({
        since,
        amount: costMicros ?? 0,
      }));
      const laid = lay(costs);
      return {
        costMicros: differences(laid),
        before: ({ before: { first, end, days: known } }) => (laid[end]! - laid[first]!) / known,
        traffic: trafficOf(campaignOf(row)),
      };
    },
  };
}

/** What runs in each campaign, and in all, without the terms that are stopped somewhere. */
function leftAlone(
  traffic: readonly TrafficSince[],
  sums: ReadonlyMap<number, readonly SumSince[]>,
  campaignOf: (row: number) => number,
  lay: (of: readonly Summed[]) => RunningSums,
) {
  const byCampaign = new Map<number, Summed[]>();
  const add = (campaign: number, one: Summed) => {
    const of = byCampaign.get(campaign);
    if (of) of.push(one);
    else byCampaign.set(campaign, [one]);
  };
  for (const { campaignId, since, impressions } of traffic) add(campaignId, { since, amount: impressions });
  for (const [row, of] of sums)
    for (const { since, impressions, clicks } of of)
      add(campaignOf(row), { since, amount: -(impressions ?? clicks ?? 0) });
  const all = [...byCampaign.values()];
  return {
    places: new Map([...byCampaign].map(([campaign, of]) => [campaign, lay(of)])),
    account: lay(all.flat()),
  };
}

function differences(sums: RunningSums): Float64Array {
  return Float64Array.from({ length: sums.length - 1 }, (_, i) => sums[i + 1]! - sums[i]!);
}
