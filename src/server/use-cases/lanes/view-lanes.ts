import { median, sum } from 'd3';
import {
  compileLanes,
  compileLeaks,
  daysBetween,
  findLaneFaults,
  normalise,
  productCodeTest,
  rerouteQueries,
  type LeakCause,
  type PlacedNegative,
  type ServedQuery,
} from '@/core';
import {
  MOST_LEAKS,
  type LanesQuery,
  type LanesView,
  type ShownLanes,
  type TierView,
} from '@/contracts/lanes';
import { lanesOfPlan, lanesOfSeats, type LanesInUse } from '../../compute/lanes/lanes-in-use';
import { negativesOf, queriesServed, stoppersIn } from '../../compute/lanes/lanes-ground';
import { listCampaignDays } from '../../repositories/campaign-days';
import { listLanePlans } from '../../repositories/decisions/lane-plans';
import type { Campaign } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { planningOf } from '../promotion/planning';
import { dryDaysOf, payingWith } from './dry-days';
import { entryTermLines } from './entry-term-lines';
import { missingNegatives, sayLeak } from './say-leak';
import { budgetsOf, orderOf } from './tiers-in-order';

/** The lane plans of an account, and one of them beside how queries really went (rules 10). */
export async function viewLanes(deps: Deps, slug: string, { plan, days }: LanesQuery): Promise<LanesView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const all = await listLanes(deps, open);
  const shown = all.find(({ key }) => key === plan) ?? all[0];
  return {
    plans: all.map(({ key, name, by }) => ({ key, name, by })),
    campaigns: [...open.snapshot.campaign.values()]
      .filter(({ status }) => status !== 'removed')
      .map(({ id, name, priority }) => ({ id, name, priority }))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
    shown: shown ? await showLanes(deps, open, shown) : null,
  };
}

/** The plans that people keep, and after them the seats of groups that have several. */
export async function listLanes({ db }: Pick<Deps, 'db'>, open: Open): Promise<LanesInUse[]> {
  const kept = await listLanePlans(db, open.account.id);
  const { groups } = planningOf(open);
  return [
    ...kept.map((plan) => lanesOfPlan(open.snapshot, plan)),
    ...groups.flatMap((group) => lanesOfSeats(open.snapshot, group) ?? []),
  ];
}

async function showLanes({ db }: Deps, open: Open, shown: LanesInUse): Promise<ShownLanes> {
  const { snapshot, account } = open;
  const { tiers } = shown;
  const lanes = compileLanes(tiers);
  const { window } = snapshot;
  const campaignsOf = (tier: number) => campaignsIn(open, shown, tier);
  const every = tiers.flatMap((_, tier) => campaignsOf(tier));
  const paying = payingWith(
    snapshot.mirror.campaigns,
    every.map(({ id }) => id),
  );
  const spent = await listCampaignDays(
    db,
    account.id,
    paying.map(({ id }) => id),
    window,
  );
  const dry = dryDaysOf(paying, spent);
  const dryDays = (tier: number) =>
    [...new Set(campaignsOf(tier).flatMap(({ id }) => dry.get(id) ?? []))].toSorted();
  const queries = queriesServed(snapshot, tiers);
  const { really, byPlan, leaks } = rerouteQueries(lanes, tiers.length, queries);
  const stoppers = stoppersIn(open, tiers);
  const explain = compileLeaks(lanes, {
    stoppers,
    idle: (tier) =>
      tiers[tier]!.serving.length === 0 ? 'paused' : dryDays(tier).length > 0 ? 'ran dry' : null,
  });
  const negatives = negativesOf(open);
  /** Whether a query that a tier gets is served there: else nothing is left to it. */
  const takes = (tier: number, query: string) =>
    tiers[tier]!.serving.length > 0 && stoppers(tier, query).length === 0;
  const faults = findLaneFaults(tiers, productCodeTest(account.productCodePattern));
  const codes = new Set(
    faults.flatMap((one) => (one.fault === 'product code' ? normalise(one.entryTerm) : [])),
  );
  const missing = tiers.map((tier, number) =>
    lanes.needs[number]!.flatMap((need) => {
      if (codes.has(need.text)) return []; // no negative stops it
      const changes = missingNegatives(open, tier, need);
      return changes.length === 0
        ? []
        : [{ ...need, changes, isTaken: takes(lanes.route(need.text), need.text) }];
    }),
  );
  const order = orderOf(open, shown, campaignsOf);
  const { fault, ...budgets } =
    shown.by === 'match type' ? { budget: null, sharing: [], fault: null } : budgetsOf(open, shown, every);
  const lacks = missing.map((of) => new Set(of.map(({ text }) => text)));
  return {
    ...{ key: shown.key, name: shown.name, by: shown.by, plan: shown.plan },
    ...{ days: daysBetween(window.from, window.to) + 1, ...budgets, ordering: order.ordering },
    tiers: tiers.map((tier, number): TierView => ({
      name: tier.name,
      places: tier.places.map(
        ({ kind, id }) => (kind === 'campaign' ? open.names.campaign(id!) : open.names.adGroup(id!)) ?? '',
      ),
      campaigns: campaignsOf(number).map(({ id }) => id),
      priorities: [...new Set(campaignsOf(number).flatMap(({ priority }) => priority ?? []))],
      bidMicros: bidIn(open, tier.adGroups),
      entryTerms: number === 0 ? 0 : tier.entryTerms.length,
      needs: lanes.needs[number]!.length,
      missing: missing[number]!.length,
      isPaused: tier.serving.length === 0,
      dryDays: dryDays(number),
      ...{ really: really[number]!, byPlan: whole(byPlan[number]!) },
      leaksMicros: sum(leaks, ({ at }) => (queries[at]!.tier === number ? queries[at]!.costMicros : 0)),
    })),
    faults: [
      ...(fault === null ? [] : [fault]),
      ...order.faults,
      ...faults.flatMap((one) =>
        one.fault === 'unreachable'
          ? [`No query can land in ${tiers[one.tier]!.name}: give it an entry term that no later tier takes.`]
          : [],
      ),
    ],
    leaks: {
      count: leaks.length,
      costMicros: sum(leaks, ({ at }) => queries[at]!.costMicros),
      first: leaks.slice(0, MOST_LEAKS).map(({ at, own }) =>
        leakLine(open, shown, queries[at]!, {
          own,
          cause: explain(queries[at]!.query, queries[at]!.tier)!,
          negatives,
          dryDays,
          isTaken: takes(own, queries[at]!.query),
        }),
      ),
    },
    entryTerms: entryTermLines(shown, lanes, queries, {
      faults,
      takes,
      isMissing: (tier, text) => lacks[tier]!.has(text),
    }),
    missing: missing.flatMap((of) => of.flatMap(({ changes, isTaken }) => (isTaken ? changes : []))),
  };
}

function campaignsIn({ snapshot }: Open, { tiers }: LanesInUse, tier: number): Campaign[] {
  const { places } = tiers[tier]!;
  const ids = places.map(({ kind, id }) =>
    kind === 'campaign' ? id! : (snapshot.adGroup.get(id!)?.campaignId ?? ''),
  );
  return [...new Set(ids)].flatMap((id) => snapshot.campaign.get(id) ?? []);
}

/** The middle one of the bids of live keywords. */
function bidIn({ snapshot }: Open, adGroups: readonly string[]): number | null {
  const isIn = new Set(adGroups);
  const bids = snapshot.liveKeywords.flatMap(({ adGroupId, bidMicros }) =>
    isIn.has(adGroupId) && bidMicros !== null ? [bidMicros] : [],
  );
  return median(bids) ?? null;
}

/** Money in whole micro-units. */
const whole = <B extends { costMicros: number }>(brought: B): B => ({
  ...brought,
  costMicros: Math.round(brought.costMicros),
});

function leakLine(
  open: Open,
  shown: LanesInUse,
  { query, tier: served, clicks, costMicros, conversions }: ServedQuery,
  how: {
    own: number;
    cause: LeakCause;
    negatives: ReadonlyMap<string, PlacedNegative>;
    dryDays: (tier: number) => string[];
    isTaken: boolean;
  },
): ShownLanes['leaks']['first'][number] {
  const { own, cause } = how;
  return {
    ...{ query, own, served, clicks, costMicros, conversions, cause: cause.cause },
    ...sayLeak(open, shown, cause, how),
  };
}
