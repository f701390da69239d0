import type { MatchType } from '../gate';
import { normalise } from '../text';
import type { Change } from './change';

/** An ad group that serves a query. */
type Seat = { adGroupId: string; campaignId: string };

/** Negatives that leave a query to one ad group alone. */
export type Seating = {
  /** ad groups: in each of the others; campaigns: in the whole campaign, unless it holds the one that keeps the query */
  where: 'ad groups' | 'campaigns';
  match: Extract<MatchType, 'exact' | 'phrase'>;
  changes: Extract<Change, { kind: 'add negative' }>[];
};

/**
 * The ways to give a query to one of the ad groups that serve it (rules 5.6): the query as exact or as phrase negative, in
 * the other ad groups or in their campaigns. A way that would put the same negatives as one before it is left out.
 * @param others ad groups that serve the query, too; the one that keeps it is passed over
 * @example seatAlone('free hive', { adGroupId: 'g1', campaignId: 'c1' }, [{ adGroupId: 'g2', campaignId: 'c2' }]).length // 4
 */
export function seatAlone(query: string, keeps: Seat, others: readonly Seat[]): Seating[] {
  const text = normalise(query);
  const elsewhere = others.filter(({ adGroupId }) => adGroupId !== keeps.adGroupId);
  const inAdGroups = [...new Set(elsewhere.map(({ adGroupId }) => `adGroup ${adGroupId}`))];
  const inCampaigns = [
    ...new Set(
      elsewhere.map(({ adGroupId, campaignId }) =>
        campaignId === keeps.campaignId ? `adGroup ${adGroupId}` : `campaign ${campaignId}`,
      ),
    ),
  ];
  const isSame = inAdGroups.join() === inCampaigns.join();
  const places = isSame
    ? [['ad groups', inAdGroups] as const]
    : [['ad groups', inAdGroups] as const, ['campaigns', inCampaigns] as const];
  return (['exact', 'phrase'] as const).flatMap((match) =>
    places.map(([where, keys]) => ({
      ...{ where, match },
      changes: keys.map((key) => {
        const [kind, id] = key.split(' ', 2) as ['adGroup' | 'campaign', string];
        return { kind: 'add negative' as const, text, match, place: { kind, id } };
      }),
    })),
  );
}
