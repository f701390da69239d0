import { daysBetween, MATCH_TYPES, overTarget } from '@/core';
import type {
  PromotionGroup,
  PromotionLine,
  PromotionsQuery,
  PromotionsView,
  SeatView,
} from '@/contracts/promotion';
import { MOST_PROMOTED } from '@/contracts/promotion';
import type { Left } from '@/contracts/knots';
import type { Group, Seat } from '../../compute/promotion/groups';
import { few } from '../../compute/workbench';
import { listSearches } from '../../repositories/research/ideas';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { intoPiles, openPiles } from '../untangle/knots/piles';
import {
  findPromotions,
  keyOfPromotion,
  stateOfPromotion,
  sureToReach,
  type Promotion,
} from './find-promotions';
import { byAdGroup, planningOf } from './planning';

/** Search terms that converted and are no exact keyword of their group yet, or lack another part, as the tray leaves the account. */
export async function viewPromotions(
  deps: Deps,
  slug: string,
  query: PromotionsQuery,
): Promise<PromotionsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const { piles, searchesOf, leftOf, all } = await pilesOf(deps, open, query);
  const shown = piles[query.pile];
  const { window } = open.snapshot;
  return {
    days: daysBetween(window.from, window.to) + 1,
    counts: { open: piles.open.length, left: piles.left.length },
    groups: planningOf(open).groups.map((group) => groupLine(group, all)),
    campaigns: campaignsOf(open, all),
    lines: shown.slice(0, MOST_PROMOTED).map((one) => lineOf(open, one, searchesOf(one.term), leftOf(one))),
    total: shown.length,
  };
}

/** Those that the filters leave, by pile. */
export async function pilesOf(deps: Deps, open: Open, query: PromotionsQuery, find = findPromotions) {
  const all = find(open, query.conversions);
  const searches = await listSearches(
    deps.db,
    open.account.id,
    all.map(({ term }) => term),
  );
  const searchesOf = (term: string) => searches.get(term) ?? null;
  const found = all.filter((one) => isAsked(open, one, query, searchesOf(one.term)));
  const leftAs = await openPiles(deps, open, 'promotion');
  const leftOf = (one: Promotion) => leftAs({ key: keyOfPromotion(one), state: stateOfPromotion(open, one) });
  return { all, searchesOf, leftOf, piles: intoPiles(found, leftOf) };
}

function isAsked(open: Open, one: Promotion, query: PromotionsQuery, searches: number | null): boolean {
  const { group, campaign, reach, searchesFrom, searchesTo } = query;
  if (group !== undefined && one.group.key !== group) return false;
  const { served } = open.snapshot;
  const isOfCampaign = (r: number) => served.adGroups[served.adGroupOf[r]!]!.campaignId === campaign;
  if (campaign !== undefined && !one.rows.some(isOfCampaign)) return false;
  if (searchesFrom !== undefined && !(searches !== null && searches >= searchesFrom)) return false;
  if (searchesTo !== undefined && !(searches !== null && searches <= searchesTo)) return false;
  if (reach === 'all') return true;
  const over = one.group.target && overTarget(one.figures, one.group.target);
  return over !== null && over > 0 === (reach === 'over');
}

function lineOf(open: Open, one: Promotion, searches: number | null, left: Left): PromotionLine {
  const { term, group, figures, isExact, plan } = one;
  const { snapshot } = open;
  const servedIn = byAdGroup(open, one.rows).map(({ adGroup }) => {
    const { id, campaignId } = snapshot.served.adGroups[adGroup]!;
    return `${snapshot.campaign.get(campaignId)?.name ?? ''} · ${snapshot.adGroup.get(id)?.name ?? ''}`;
  });
  return {
    ...{ term, group: group.key, ...figures, target: targetNumber(group), searches },
    ...{ reaches: sureToReach(open, one), servedIn: few(servedIn), isExact },
    keywords: plan.parts.filter(({ kind }) => kind === 'keyword').length,
    negatives: plan.parts.filter(({ kind }) => kind === 'negative').length,
    left,
  };
}

/** Micro-units or a fraction, as the account steers. */
const targetNumber = ({ target }: Group) =>
  target === null ? null : target.by === 'CPA' ? target.micros : target.fraction;

export const seatView = (seat: Seat | null): SeatView | null =>
  seat && { campaign: seat.campaign, adGroup: seat.adGroup, isChosen: seat.isChosen, state: seat.state };

function groupLine(group: Group, all: readonly Promotion[]): PromotionGroup {
  const { key, name, isOwn, seats, gone, adGroupIds } = group;
  return {
    ...{ key, name, isOwn, gone, target: targetNumber(group) },
    seats: Object.fromEntries(
      MATCH_TYPES.map((match) => [match, seatView(seats[match])]),
    ) as PromotionGroup['seats'],
    terms: all.filter((one) => one.group === group).length,
    adGroups: adGroupIds.length,
  };
}

/** Campaigns in which the terms were served, by name. */
function campaignsOf({ snapshot }: Open, all: readonly Promotion[]) {
  const { served } = snapshot;
  const ids = new Set(
    all.flatMap(({ rows }) => rows.map((r) => served.adGroups[served.adGroupOf[r]!]!.campaignId)),
  );
  return [...ids]
    .map((id) => ({ id, name: snapshot.campaign.get(id)?.name ?? '' }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}
