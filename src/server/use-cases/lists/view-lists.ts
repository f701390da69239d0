import { findCommonSets, findRedundant, isHungOn, isRuled, sayRule, type Redundancy } from '@/core';
import type { ListHurts, ListHealth, ListLine, ListsHealth, ListsView } from '@/contracts/lists';
import { NOT_GIVEN } from '@/contracts/common';
import { hurtsByCampaign } from '../../compute/lists/list-reach';
import type { Snapshot } from '../../compute/snapshot';
import { listHangRules, type StoredHangRule } from '../../repositories/lists/hang-rules';
import { listWaitingVersions, loadLastChanges } from '../../repositories/lists/list-versions';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import { shapeOf, type Campaign } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { knownLists, type KnownList } from './known-lists';
import { sumStoppedBefore } from './stopped-before';
import { sayVersion } from './in-words';
import { derivedLater, derivedFrom } from '../../compute/derived';

/** All shared lists, those in the tray too: where they hang and what they do there. */
export async function viewLists(deps: Deps, slug: string): Promise<ListsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { snapshot, account, draft } = open;
  const campaigns = campaignsOf(snapshot);
  const indexOf = new Map(campaigns.map((c, i) => [c.id, i]));
  const rules = await listHangRules(deps.db, account.id);
  const waiting = await listWaitingVersions(deps.db, account.id);
  const waits = new Set(waiting.map((version) => version.listId));
  return {
    window: { ...snapshot.window, days: account.windowDays },
    campaigns: campaigns.map(({ id, name, status, channel, labels }) => ({
      id,
      name,
      status,
      channel,
      labels,
    })),
    lists: knownLists(open).map((list) => ({
      ...toLine(open, list, indexOf),
      ...ruled(open, list.id, campaigns, rules),
      waits: waits.has(list.id),
    })),
    accountWide: {
      used: draft.gate.entriesAt({ kind: 'account', id: null }).length,
      most: account.limits.accountNegatives,
    },
    waiting: waiting.map((version) => ({
      ...sayVersion(open, version),
      ...{ listId: version.listId, listName: version.listName },
      isThere: snapshot.mirror.lists.some((l) => l.id === version.listId),
    })),
    outside: (await listOutsideChanges(deps.db, account.id)).map(({ id, at, said, by, on }) => ({
      ...{ id, at, said, by, on },
    })),
  };
}

/** Campaigns on which a list can hang, by name. */
export function campaignsOf({ mirror }: Snapshot): Campaign[] {
  return mirror.campaigns
    .filter((c) => c.status !== 'removed' && c.status !== 'ended' && c.name !== NOT_GIVEN)
    .sort((a, b) => BY_NAME.compare(a.name, b.name));
}

const BY_NAME = new Intl.Collator('en');

function toLine(
  open: Open,
  { id, name, holds, isNew }: KnownList,
  indexOf: ReadonlyMap<string, number>,
): Omit<ListLine, 'rules' | 'wanted' | 'waits'> {
  const { account, standing, draft, drafted } = open;
  const entries = draft.gate.entriesAt({ kind: 'list', id });
  const placements = draft.gate.placementsIn(id).length;
  const hungOn = standing.hungOn(id);
  const hurts: ListHurts = { campaign: [], keywords: [] };
  for (const [campaignId, keywords] of hurtsByCampaign(open, entries)) {
    const campaign = indexOf.get(campaignId);
    if (campaign === undefined) continue;
    hurts.campaign.push(campaign);
    hurts.keywords.push(keywords);
  }
  return {
    ...{ id, name, holds, isNew, hurts },
    entries: holds === 'placements' ? placements : entries.length,
    room:
      holds === 'placements'
        ? account.limits.listPlacements - placements
        : account.limits.listNegatives - entries.length,
    hungOn:
      hungOn === 'account'
        ? hungOn
        : hungOn.flatMap((campaignId) => indexOf.get(campaignId) ?? []).sort((a, b) => a - b),
    drafted: drafted.flatMap(({ change }) => {
      if ((change.kind !== 'hang list' && change.kind !== 'take down list') || change.listId !== id)
        return [];
      const campaign = change.campaignId === null ? null : indexOf.get(change.campaignId);
      return campaign === undefined ? [] : [{ campaign, hang: change.kind === 'hang list' }];
    }),
  };
}

function ruled(
  { draft }: Open,
  listId: string,
  campaigns: readonly Campaign[],
  all: readonly StoredHangRule[],
): Pick<ListLine, 'rules' | 'wanted'> {
  const rules = all.filter((rule) => rule.listId === listId);
  const hungOn = draft.gate.hungOn(listId);
  const isWanted = (c: Campaign) =>
    rules.some(({ rule, except }) => isRuled(rule, c) && !except.includes(c.id)) &&
    hungOn !== 'account' &&
    !isHungOn(hungOn, c.id);
  const indexesOf = (holds: (c: Campaign) => boolean) => campaigns.flatMap((c, i) => (holds(c) ? [i] : []));
  return {
    rules: rules.map(({ id, rule, by, except }) => ({
      ...{ id, rule, by, said: sayRule(rule) },
      except: indexesOf((c) => except.includes(c.id)),
    })),
    wanted: indexesOf(isWanted),
  };
}

/** The needless negatives of the account as the platform has it (rules 3). Cached per snapshot. */
export const redundancyOf: (snapshot: Snapshot) => Redundancy[] = derivedFrom(({ mirror }) =>
  findRedundant(shapeOf(mirror)),
);

const MOST_SETS = 12;

/** Negatives that could be lists, in the account as the tray leaves it (rules 3.1). */
export const commonSetsOf = derivedFrom(({ draft }: Open) =>
  findCommonSets(draft.gate.shape(), { most: MOST_SETS }),
);

/** A list that was never changed since it was first read was changed last when its newest entry came. */
function asRead(entries: readonly { createdAt: string }[]): ListHealth['last'] {
  const at = entries.reduce((newest, entry) => (entry.createdAt > newest ? entry.createdAt : newest), '');
  return at === '' ? null : { at, by: null, isKnown: false };
}

const healthOf = derivedLater<Snapshot, ListsHealth>();

/**
 * What each list stopped, which of its entries are needless, and who changed it last, as the platform has it. Cached
 * per snapshot; decisions do not change it.
 */
export async function viewListsHealth(deps: Deps, slug: string): Promise<ListsHealth> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  return healthOf(open.snapshot, () => findHealth(deps, open));
}

async function findHealth(deps: Deps, open: Open): Promise<ListsHealth> {
  const { lists, negatives } = open.snapshot.mirror;
  const last = await loadLastChanges(deps.db, open.account.id);
  const redundant = new Set(redundancyOf(open.snapshot).map(({ id }) => id));
  const entriesOf = new Map(lists.map((list) => [list.id, [] as typeof negatives]));
  for (const negative of negatives)
    if (negative.place.kind === 'list') entriesOf.get(negative.place.id!)?.push(negative);
  const stopped = await sumStoppedBefore(
    deps,
    open,
    lists.map((list) => ({ list, entries: entriesOf.get(list.id)! })),
  );
  return {
    lists: Object.fromEntries(
      lists.map(({ id }, i) => [
        id,
        {
          stopped: stopped[i]!,
          redundant: entriesOf.get(id)!.filter((n) => redundant.has(n.id)).length,
          last: last.get(id) ?? asRead(entriesOf.get(id)!),
        },
      ]),
    ),
  };
}
