import { counted, type ListDifference, listed } from '@/core';
import type { VersionLine } from '@/contracts/lists';
import type { ListVersion } from '../../repositories/lists/list-versions';
import type { Open } from '../open-workbench';

const MOST_NAMED = 4;

/** A version in words. */
export function sayVersion({ names }: Pick<Open, 'names'>, version: ListVersion): VersionLine {
  const { id, at, by, on, what, state, difference } = version;
  const campaign = (campaignId: string | null) =>
    campaignId === null ? 'the whole account' : (names.campaign(campaignId) ?? 'a campaign that is gone');
  return { id, at, by, on, what, state, said: sayDifference(difference, campaign) };
}

function sayDifference(of: ListDifference, campaign: (id: string | null) => string): string[] {
  const entries = (all: ListDifference['added']) => all.map(({ text, match }) => `“${text}” (${match})`);
  const said = (what: string, all: readonly string[]) => {
    if (all.length === 0) return [];
    return [`${what} ${listed(all.slice(0, MOST_NAMED), all.length)}`];
  };
  return [
    ...(of.name ? [`renamed from ${of.name.was} to ${of.name.is}`] : []),
    ...said('added', entries(of.added)),
    ...said('removed', entries(of.removed)),
    ...said('added', of.placementsAdded),
    ...said('removed', of.placementsRemoved),
    ...said('hung on', of.hung.map(campaign)),
    ...said('taken down from', of.takenDown.map(campaign)),
  ];
}

/** Where a list hangs, in words. */
export function whereItHangs(
  hungOn: readonly string[] | 'account',
  nameOf: (campaignId: string) => string,
): string {
  if (hungOn === 'account') return 'hangs on the whole account';
  if (hungOn.length === 0) return 'hangs nowhere, so it stops nothing';
  const some = listed(hungOn.slice(0, 3).map(nameOf), hungOn.length);
  return `hangs on ${counted(hungOn.length, 'campaign')}: ${some}`;
}
