import { shiftDay, type NegativeText } from '@/core';
import type { Stopped } from '@/contracts/lists';
import { reachOfEntry } from '../../compute/lists/list-reach';
import { sumBefore, type BeforeDays } from '../../repositories/sums-before';
import type { Negative, SharedList } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';

/** Entries of a list that are summed as one: all of a list, or each by itself. */
export type Group = { list: SharedList; entries: readonly Negative[] };

/**
 * What entries of lists stopped, estimated (rules 3.2): what they stop is served no more, so that no report tells of it.
 * For each entry on each campaign it is what its terms did there in as many days as the window has, before the day from
 * which both stood. Where that day lies before the first day of data, nothing is known.
 */
export async function sumStoppedBefore(deps: Deps, open: Open, groups: readonly Group[]): Promise<Stopped[]> {
  const { snapshot, account } = open;
  const { dataDays } = snapshot;
  const sums: Stopped[] = groups.map(() => ({
    ...{ terms: 0, clicks: 0, costMicros: 0, returningTerms: 0, conversions: 0, unknown: 0, known: 0 },
  }));
  if (!dataDays) return sums;
  const all = { ...open, snapshot: await deps.snapshots.get(deps.db, account, 0, dataDays) };
  const asked = new Map<string, BeforeDays>();
  const windowBefore = memoisedWindows(account.windowDays);
  groups.forEach(({ list, entries }, group) => {
    const onAccount = list.hungOn === 'account';
    const campaigns: string[] =
      list.hungOn === 'account' ? snapshot.mirror.campaigns.map((c) => c.id) : list.hungOn;
    const sinceOf = (campaignId: string) => list.since.get(onAccount ? 'account' : campaignId) ?? '';
    const since = new Map(campaigns.map((id) => [id, sinceOf(id)]));
    // A day before which there is data; nothing is known before it where the platform does not say since when.
    const isKnown = (hung: string, created: string) =>
      hung !== '' && (hung > dataDays.from || created > dataDays.from);
    const told = [...since.values()].filter((day) => isKnown(day, '9')).length;
    const late = [...since.values()].filter((day) => isKnown(day, '')).length;
    for (const entry of entries) {
      const created = entry.createdAt.slice(0, 10);
      const known = created === '' ? 0 : created > dataDays.from ? told : late;
      sums[group]!.known += known;
      sums[group]!.unknown += campaigns.length - known;
      if (known === 0) continue;
      ask(asked, all, group, entry, (campaignId) => {
        const hung = since.get(campaignId) ?? '';
        return isKnown(hung, created) ? windowBefore(hung > created ? hung : created) : undefined;
      });
    }
  });
  for (const sum of await sumBefore(deps.db, account.id, [...asked.values()])) {
    const { group, terms, clicks, costMicros, returningTerms, conversions } = sum;
    Object.assign(sums[group]!, { terms, clicks, costMicros, returningTerms, conversions });
  }
  return sums;
}

type Days = { from: string; to: string };

/** The days before a day, as many as the window has. */
function memoisedWindows(days: number): (day: string) => Days {
  const known = new Map<string, Days>();
  return (day) => {
    let window = known.get(day);
    if (!window) known.set(day, (window = { from: shiftDay(day, -days), to: shiftDay(day, -1) }));
    return window;
  };
}

/** Each term once, with the earliest day on which an entry of the group stopped it. */
function ask(
  asked: Map<string, BeforeDays>,
  all: Open,
  group: number,
  entry: NegativeText,
  daysOn: (campaignId: string) => Days | undefined,
): void {
  const { served, terms, rows } = all.snapshot;
  for (const t of reachOfEntry(all, entry).terms) {
    for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) {
      const window = daysOn(served.adGroups[served.adGroupOf[r]!]!.campaignId);
      if (!window) continue;
      const key = `${group} ${t} ${rows.adGroupId[r]}`;
      const known = asked.get(key);
      if (known && known.to <= window.to) continue;
      asked.set(key, { group, termId: terms.ids[t]!, adGroupId: rows.adGroupId[r]!, ...window });
    }
  }
}
