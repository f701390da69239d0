import { stopsIn, type Change, type Place } from '@/core';
import { NOT_GIVEN } from '@/contracts/common';
import type { Status } from '../repositories/structure/structure';
import type { Snapshot } from './snapshot';
import { derivedFrom } from './derived';

/** Of ad group g of the window: 1 where it and its campaign are live, or known only from a report, which it served. */
const servingOf = derivedFrom((snapshot: Snapshot) => {
  const isServing = Uint8Array.from(snapshot.served.adGroups, (adGroup) =>
    mayServe(statusOf(snapshot, { kind: 'adGroup', id: adGroup.id })) ? 1 : 0,
  );
  return { isServing, isAll: !isServing.includes(0) };
});

/** Whether ads of an ad group of the window can be served today. */
export function isServing(snapshot: Snapshot, adGroup: number): boolean {
  return servingOf(snapshot).isServing[adGroup] === 1;
}

/** Rows of ad groups that serve: stopping what is paused or ended saves nothing. */
export function servingRows(snapshot: Snapshot, rows: readonly number[]): readonly number[] {
  const { isServing, isAll } = servingOf(snapshot);
  return isAll ? rows : rows.filter((r) => isServing[snapshot.served.adGroupOf[r]!] === 1);
}

const mayServe = (status: Status) => status === 'live' || status === 'unknown';

/** From the best to the worst (rules 5.1). */
const ORDER: readonly Status[] = ['live', 'unknown', 'paused', 'ended', 'removed'];

/** The effective status of a place: the worst of its ad group's and its campaign's. Lists and accounts are live. */
export function statusOf({ adGroup, campaign }: Snapshot, { kind, id }: Place): Status {
  if (kind === 'campaign') return campaign.get(id ?? '')?.status ?? 'removed';
  if (kind !== 'adGroup') return 'live';
  const own = adGroup.get(id ?? '');
  const above = own && campaign.get(own.campaignId);
  if (!own || !above) return 'removed';
  return ORDER.indexOf(own.status) > ORDER.indexOf(above.status) ? own.status : above.status;
}

/** Whether ads of a place can be served today: it is live, or known only from a report. */
export const canServe = (snapshot: Snapshot, place: Place) => mayServe(statusOf(snapshot, place));

/** The status of the place in which a change stops something; null where it stops nothing. */
export function noteOnPlace(snapshot: Snapshot, change: Change): string | null {
  const place = stopsIn(change);
  return place ? sayStatus(snapshot, place) : null;
}

/** What a person should know of a place before stopping anything there; null of one that is live. */
export function sayStatus(snapshot: Snapshot, place: Place): string | null {
  const what = place.kind === 'campaign' ? 'campaign' : 'ad group';
  const status = statusOf(snapshot, place);
  switch (status) {
    case 'live':
      return null;
    case 'unknown':
      return `This ${what} is known only from a report; a structure file tells whether it is live.`;
    case 'paused':
    case 'ended':
    case 'removed':
      return `This ${what} is ${status}: it serves nothing, so stopping there saves 0.`;
  }
}

/** Whether a place stands for a campaign or ad group that the report did not name. Nobody can stop anything there. */
export function isNotGiven(
  { adGroup: adGroups, campaign: campaigns }: Snapshot,
  { kind, id }: Place,
): boolean {
  const adGroup = kind === 'adGroup' ? adGroups.get(id!) : undefined;
  if (adGroup?.name === NOT_GIVEN) return true;
  const campaign = kind === 'campaign' ? id : adGroup?.campaignId;
  return campaigns.get(campaign ?? '')?.name === NOT_GIVEN;
}

/** What to do about it. */
export const sayNotGiven = (kind: Place['kind']) =>
  `The report does not name this ${kind === 'campaign' ? 'campaign' : 'ad group'}, so nothing can be stopped there. Choose a wider place, or bring a report that names it.`;
