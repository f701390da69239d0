import {
  changeKey,
  compareEntries,
  describePlace,
  offerVariants,
  placeKey,
  splitByTheme,
  type NegativeText,
  type RowGate,
} from '@/core';
import {
  entryKey,
  type AccountWideView,
  type EntriesHealth,
  type EntriesView,
  type EntryLine,
} from '@/contracts/list-entries';
import { type CompareView, type CouldBeView, type ThemesView } from '@/contracts/lists';
import { reachOfEntry, rowsOfEntries } from '../../compute/lists/list-reach';
import { weighRows } from '../../compute/workbench';
import type { SharedList } from '../../repositories/structure/structure';
import { loadOrigins } from '../../repositories/lists/origins';
import type { Deps } from '../deps';
import { vocabularyOf } from '../sift/offer-variants';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { campaignsOf, commonSetsOf, redundancyOf } from './view-lists';
import { requireList } from './known-lists';
import { sumStoppedBefore } from './stopped-before';
import { derivedLater } from '../../compute/derived';

/** Every campaign that a change to a list reaches, by name. */
export function reachesOf(open: Open, gate: RowGate, listId: string): EntriesView['reaches'] {
  const hungOn = gate.hungOn(listId);
  const everywhere = hungOn === 'account';
  const campaigns = campaignsOf(open.snapshot).filter((c) => everywhere || hungOn.includes(c.id));
  return { everywhere, campaigns: campaigns.map((c) => c.name) };
}

/** What stands in a list, as the tray leaves it and with what goes with the tray. */
export async function viewEntries(deps: Deps, slug: string, listId: string): Promise<EntriesView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const list = requireList(open, listId);
  const { limits } = open.account;
  const origins = await loadOrigins(deps.db, open.account.id, listId);
  const entries = list.holds === 'placements' ? placementLines(open, listId) : negativeLines(open, listId);
  const most = list.holds === 'placements' ? limits.listPlacements : limits.listNegatives;
  const staying = entries.filter((e) => e.drafted !== 'removed').length;
  return {
    list: { ...list, room: most - staying },
    reaches: reachesOf(open, open.draft.gate, listId),
    entries: entries.map(({ key, ...entry }) => {
      const origin = origins.get(key);
      return origin ? { ...entry, by: origin.by, from: origin.from, since: entry.since ?? origin.at } : entry;
    }),
  };
}

type Keyed = EntryLine & { key: string };

function negativeLines(open: Open, listId: string): Keyed[] {
  const { snapshot, draft, standing } = open;
  const place = { kind: 'list' as const, id: listId };
  const isSaid = (entry: NegativeText) =>
    open.account.platformAccountId === null && standing.holds(entry, place);
  const there = snapshot.mirror.negatives.filter((n) => placeKey(n.place) === placeKey(place));
  const since = new Map(there.map((n) => [entryKey(n.match, n.text), n.createdAt]));
  const staying = draft.gate.entriesAt(place);
  const stays = new Set(staying.map(({ match, text }) => entryKey(match, text)));
  const hungOn = draft.gate.hungOn(listId);
  const toLine = ({ text, match }: NegativeText, drafted: EntryLine['drafted']): Keyed => ({
    ...{ text, match, drafted, by: null, from: null },
    since: since.get(entryKey(match, text)) || null,
    hurts: reachOfEntry(open, { text, match }).keywords.filter(
      ({ keyword }) => hungOn === 'account' || hungOn.includes(keyword.adGroup.campaignId),
    ).length,
    key: changeKey({ kind: 'add negative', text, match, place }),
  });
  return [
    ...staying.map((entry) => {
      if (since.has(entryKey(entry.match, entry.text))) return toLine(entry, null);
      return toLine(entry, isSaid(entry) ? 'said to be done' : 'added');
    }),
    ...there.filter(({ match, text }) => !stays.has(entryKey(match, text))).map((n) => toLine(n, 'removed')),
  ];
}

function placementLines({ snapshot, draft }: Open, listId: string): Keyed[] {
  const there = snapshot.mirror.lists.find((list) => list.id === listId)?.placements ?? [];
  const [known, staying] = [new Set(there), draft.gate.placementsIn(listId)];
  const stays = new Set(staying);
  const toLine = (address: string, drafted: EntryLine['drafted']): Keyed => ({
    ...{ text: address, match: null, since: null, drafted, by: null, from: null, hurts: 0 },
    key: changeKey({ kind: 'add placement', address, listId }),
  });
  return [
    ...staying.map((address) => toLine(address, known.has(address) ? null : 'added')),
    ...there.filter((address) => !stays.has(address)).map((address) => toLine(address, 'removed')),
  ];
}

/** Variants are looked for among so many entries of a list: the newest. */
const MOST_VARIANTS = 1_000;

/** What each entry stopped, what makes it needless and what it makes needless, and forms of it that still pass. */
export async function viewEntriesHealth(deps: Deps, slug: string, listId: string): Promise<EntriesHealth> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  requireList(open, listId);
  const list = open.snapshot.mirror.lists.find((l) => l.id === listId);
  return list ? healthOf(list, () => findHealth(deps, open, list)) : { entries: {} };
}

/** Cached per snapshot and list. Decisions do not change it. */
const healthOf = derivedLater<SharedList, EntriesHealth>();

async function findHealth(deps: Deps, open: Open, list: SharedList): Promise<EntriesHealth> {
  const { snapshot, names } = open;
  const listId = list.id;
  const entries = snapshot.mirror.negatives.filter((n) => n.place.kind === 'list' && n.place.id === listId);
  const stopped = await sumStoppedBefore(
    deps,
    open,
    entries.map((entry) => ({ list, entries: [entry] })),
  );
  const coveredBy = new Map<string, string>();
  const covers = new Map<string, number>();
  for (const { id, coveredBy: by } of redundancyOf(snapshot)) {
    coveredBy.set(id, by);
    covers.set(by, (covers.get(by) ?? 0) + 1);
  }
  const say = (id: string) => {
    const { text, match, place } = snapshot.negative.get(id)!;
    const where = place.kind === 'list' && place.id === listId ? 'here' : `in ${describePlace(place, names)}`;
    return `“${text}” (${match}) ${where}`;
  };
  const missing = new Map(
    entries.slice(-MOST_VARIANTS).map((entry) => [entry.id, countVariants(open, entry)]),
  );
  return {
    entries: Object.fromEntries(
      entries.map((entry, i) => [
        entryKey(entry.match, entry.text),
        {
          stopped: stopped[i]!,
          coveredBy: coveredBy.has(entry.id) ? say(coveredBy.get(entry.id)!) : null,
          covers: covers.get(entry.id) ?? 0,
          missing: missing.get(entry.id) ?? 0,
        },
      ]),
    ),
  };
}

/** Forms of an entry that occur in the window and that it lets through (rules 8). */
function countVariants({ snapshot }: Open, entry: NegativeText): number {
  return offerVariants(entry, snapshot.served.table, [], vocabularyOf(snapshot)).length;
}

/** Two lists side by side. */
export async function compareLists(
  deps: Deps,
  slug: string,
  first: string,
  second: string,
): Promise<CompareView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const entries = (id: string) => open.draft.gate.entriesAt({ kind: 'list', id });
  const named = (id: string) => ({ id, name: requireList(open, id).name });
  return { first: named(first), second: named(second), ...compareEntries(entries(first), entries(second)) };
}

/** A list by the words that its entries share. */
export async function viewThemesOfList(deps: Deps, slug: string, listId: string): Promise<ThemesView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  requireList(open, listId);
  return { parts: splitByTheme(open.draft.gate.entriesAt({ kind: 'list', id: listId })) };
}

/** Negatives that stand one by one in several campaigns and could be lists (rules 3.1). */
export async function viewCouldBe(deps: Deps, slug: string): Promise<CouldBeView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const campaign = (id: string) => ({ id, name: open.names.campaign(id) ?? id });
  return {
    sets: commonSetsOf(open).map(({ entries, campaignIds, saves }) => ({
      ...{ entries, saves, campaigns: campaignIds.map(campaign) },
    })),
  };
}

/** Negatives on the whole account, and the room that is left for them. */
export async function viewAccountWide(deps: Deps, slug: string): Promise<AccountWideView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { snapshot, draft, names, account, standing } = open;
  const place = { kind: 'account' as const, id: null };
  const covered = new Map(redundancyOf(snapshot).map((r) => [r.id, snapshot.negative.get(r.coveredBy)!]));
  const there = snapshot.mirror.negatives.filter((n) => n.place.kind === 'account');
  const known = new Set(there.map((n) => entryKey(n.match, n.text)));
  const said = standing
    .entriesAt(place)
    .filter((entry) => account.platformAccountId === null && !known.has(entryKey(entry.match, entry.text)));
  return {
    used: draft.gate.entriesAt(place).length,
    most: account.limits.accountNegatives,
    entries: [...there, ...said.map((entry) => ({ ...entry, id: '', place, createdAt: '' }))].map((n) => {
      const by = covered.get(n.id);
      return {
        ...{ text: n.text, match: n.match, since: n.createdAt || null },
        drafted: !draft.gate.holds(n, n.place) ? 'removed' : n.id === '' ? 'said to be done' : null,
        coveredBy: by ? `“${by.text}” (${by.match}) in ${describePlace(by.place, names)}` : null,
        stops: weighRows(snapshot, rowsOfEntries(open, [n])),
      };
    }),
  };
}
