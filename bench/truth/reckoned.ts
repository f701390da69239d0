import { group, sum } from 'd3';
import { reckonSaved, trafficChange, type Acting, type PlayedRow } from '@/core';
import type { ServedRow } from './served';

/**
 * What a tray saved, as the Ledger reckons it from reports alone (rules 13.4): the days before it was sent, and those since.
 * @param isStopped a row that the tray stops
 * @param days of both stretches
 * @param toCome the cost to come of what is stopped, as a share of what it cost
 */
export function reckonedOf(
  { before, since }: { before: readonly ServedRow[]; since: readonly ServedRow[] },
  isStopped: (text: string, adGroupId: string) => boolean,
  campaignOf: (adGroupId: string) => string,
  days: { before: number; since: number },
  toCome: number,
): number {
  const placesOf = group([...before, ...since], (r) => r.text);
  const touched = [...placesOf].filter(([text, of]) => of.some((r) => isStopped(text, r.adGroupId)));
  const isTouched = new Set(touched.map(([text]) => text));
  const impressionsOf = (rows: readonly ServedRow[]) =>
    group(
      rows.filter((r) => !isTouched.has(r.text)),
      (r) => campaignOf(r.adGroupId),
    );
  const alone = { before: impressionsOf(before), since: impressionsOf(since) };
  const seen = (rows: Iterable<ServedRow>) => sum(rows, (r) => r.impressions);
  const all = {
    before: seen([...alone.before.values()].flat()),
    since: seen([...alone.since.values()].flat()),
  };
  const aDay = (of: { before: number; since: number }) => ({
    before: of.before / days.before,
    since: of.since / days.since,
  });
  const traffic = (adGroupId: string) => {
    const campaign = campaignOf(adGroupId);
    const of = {
      before: seen(alone.before.get(campaign) ?? []),
      since: seen(alone.since.get(campaign) ?? []),
    };
    return trafficChange({ ...aDay(of), impressions: of.before }, aDay(all));
  };
  const change: Acting = { from: 0, until: Infinity, toCome };
  const find = (rows: readonly ServedRow[]) => new Map(rows.map((r) => [`${r.text}|${r.adGroupId}`, r]));
  const [were, are] = [find(before), find(since)];
  return sum(touched, ([text, of]) => {
    const adGroups = [...new Set(of.map((r) => r.adGroupId))];
    const rows = adGroups.map((adGroupId): PlayedRow => {
      const [was, is] = [were.get(`${text}|${adGroupId}`), are.get(`${text}|${adGroupId}`)];
      const change = traffic(adGroupId);
      return {
        costMicros: [is?.costMicros ?? 0],
        before: () => (was?.costMicros ?? 0) / days.before,
        traffic: () => change,
      };
    });
    const stopping = adGroups.flatMap((adGroupId, row) =>
      isStopped(text, adGroupId) && were.has(`${text}|${adGroupId}`) ? [{ row, change }] : [],
    );
    return sum(
      reckonSaved([days.since], rows, stopping),
      (part) => part.expectedMicros - part.stillMicros - part.backMicros,
    );
  });
}
