import { group } from 'd3-array';
import { hangingPlace, isHungOn, type Change, type NegativeText, type Place } from '@/core';
import type { CellAnswer, HangingsAnswer, HangingsQuery, Stopped } from '@/contracts/lists';
import type { Touched } from '@/contracts/common';
import { reachOfEntry, rowsOfEntries } from '../../compute/lists/list-reach';
import { sayStatus, servingRows } from '../../compute/serving';
import {
  few,
  keywordsThatConverted,
  protectedBy,
  touchedKeywords,
  weighRows,
  type StoppedKeyword,
} from '../../compute/workbench';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { requireList } from './known-lists';
import { sumStoppedBefore } from './stopped-before';
import { derivedByKey } from '../../compute/derived';

const MOST_HURT = 40;

/** What hanging lists on campaigns would do, or taking them down: all of it together, and where it hurts. */
export async function weighHangings(deps: Deps, slug: string, query: HangingsQuery): Promise<HangingsAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { draft, snapshot, names } = open;
  const gate = draft.gate.fork();
  const changes = changesOf(open, query);
  const rows: number[] = [];
  const byCampaign = new Map<string | null, { rows: number[]; entries: NegativeText[] }>();
  for (const change of changes) {
    const { stopped, reopened } = gate.apply(change);
    const moved = query.hang ? stopped : reopened;
    for (const r of moved) rows.push(r);
    const at = byCampaign.get(change.campaignId) ?? { rows: [], entries: [] };
    byCampaign.set(change.campaignId, at);
    for (const r of moved) at.rows.push(r);
    at.entries.push(...draft.gate.entriesAt({ kind: 'list', id: change.listId }));
  }
  const entries = [...byCampaign.values()].flatMap((at) => at.entries);
  const each = [...byCampaign].map(([campaignId, at]) => ({
    campaignId: campaignId ?? '',
    name: campaignId === null ? 'the whole account' : (names.campaign(campaignId) ?? campaignId),
    weight: weighRows(snapshot, servingRows(snapshot, at.rows)),
    touched: touchedAt(open, campaignId, at.entries, at.rows),
  }));
  const hurt = each.filter(({ touched }) => touched.length > 0);
  hurt.sort((a, b) => howBad(b.touched) - howBad(a.touched));
  return {
    changes: changes.length,
    weight: weighRows(snapshot, servingRows(snapshot, rows)),
    touched: sumTouched(hurt.map(({ touched }) => touched)),
    protectedTerms: few(query.hang ? protectedBy(open, distinct(entries)) : []),
    byCampaign: each
      .map(({ touched, ...one }) => ({ ...one, hurts: touched.length > 0 }))
      .sort((a, b) => (b.weight.costMicros ?? 0) - (a.weight.costMicros ?? 0)),
    hurt: { count: hurt.length, first: hurt.slice(0, MOST_HURT) },
  };
}

type Hanging = Extract<Change, { kind: 'hang list' | 'take down list' }>;

/** The changes that a person means by lists × campaigns. Changes that would change nothing are left out. */
function changesOf(open: Open, { lists, campaigns, hang }: HangingsQuery): Hanging[] {
  const { draft, names } = open;
  return lists.flatMap((listId) => {
    requireList(open, listId);
    const hungOn = draft.gate.hungOn(listId);
    const on = campaigns === 'account' ? [null] : campaigns.filter((id) => names.campaign(id) !== undefined);
    return on.flatMap((campaignId): Hanging[] => {
      if (hungOn === 'account' && campaignId !== null) return [];
      if (isHungOn(hungOn, campaignId) === hang) return [];
      return [{ kind: hang ? 'hang list' : 'take down list', listId, campaignId }];
    });
  });
}

function touchedAt(
  open: Open,
  campaignId: string | null,
  entries: readonly NegativeText[],
  rows: readonly number[],
): Touched {
  const byText = entries.flatMap((entry) => reachOfEntry(open, entry).keywords);
  const costly = keywordsThatConverted(open.snapshot, rows);
  return touchedKeywords(open, open.draft.gate, byText, hangingPlace(campaignId), costly);
}

const WEIGHT = { 'shut out': 1_000_000, narrowed: 1_000, costly: 1 };
const howBad = (touched: Touched) =>
  touched.reduce((sum, { severity, count }) => sum + WEIGHT[severity] * count, 0);

function sumTouched(all: readonly Touched[]): Touched {
  const sums = new Map<Touched[number]['severity'], Touched[number]>();
  for (const { severity, count, first } of all.flat()) {
    const known = sums.get(severity);
    sums.set(severity, {
      severity,
      count: count + (known?.count ?? 0),
      first: [...(known?.first ?? []), ...first].slice(0, 3),
    });
  }
  return (['shut out', 'narrowed', 'costly'] as const).flatMap((severity) => sums.get(severity) ?? []);
}

function distinct(entries: readonly NegativeText[]): NegativeText[] {
  return [...new Map(entries.map((entry) => [`${entry.match} ${entry.text}`, entry])).values()];
}

const itself = (listId: string) => listId;

/** What a list does wherever it hangs, and the entries that touch live keywords, by the campaign of these. */
type ListReach = {
  rows: number[];
  protectedTerms: string[];
  hurting: ReadonlyMap<string, readonly { entry: NegativeText; stopped: StoppedKeyword[] }[]>;
};

/** Cached per list, because a person who moves along the grid asks for one campaign after another. */
const reachOfList = derivedByKey(itself, (open: Open, listId: string): ListReach => {
  const entries = open.draft.gate.entriesAt({ kind: 'list', id: listId });
  const hurting = new Map<string, { entry: NegativeText; stopped: StoppedKeyword[] }[]>();
  for (const entry of entries) {
    const { keywords } = reachOfEntry(open, entry);
    if (keywords.length === 0) continue; // most touch none
    const byCampaign = group(keywords, ({ keyword }) => keyword.adGroup.campaignId);
    for (const [campaignId, stopped] of byCampaign) {
      const there = hurting.get(campaignId);
      if (there) there.push({ entry, stopped });
      else hurting.set(campaignId, [{ entry, stopped }]);
    }
  }
  return { rows: rowsOfEntries(open, entries), protectedTerms: protectedBy(open, entries), hurting };
});

/** One cell of the grid: what a list stops or would stop on a campaign, and which of its entries hurt. */
export async function weighCell(
  deps: Deps,
  slug: string,
  listId: string,
  campaignId: string,
): Promise<CellAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const list = requireList(open, listId);
  const campaign = open.snapshot.campaign.get(campaignId);
  if (!campaign) throw new Refusal('This campaign is not there any more.', 404);
  const { gate } = open.draft;
  const place = { kind: 'campaign' as const, id: campaignId };
  const reach = reachOfList(open, listId);
  const hurting = reach.hurting.get(campaignId) ?? [];
  const hungOn = gate.hungOn(listId);
  const by = hungOn === 'account' ? 'account' : hungOn.includes(campaignId) ? 'itself' : null;
  const inside = gate.within(reach.rows, place);
  // Where it hangs, what it alone stops is unknown by now: what it stops of the window is told.
  const rows = by === null ? inside.filter((r) => gate.stopCount(r) === 0) : inside;
  const mirrored = open.snapshot.mirror.lists.find((l) => l.id === listId);
  return {
    list: { id: list.id, name: list.name, holds: list.holds },
    campaign: { id: campaign.id, name: campaign.name },
    ...{ hangs: by !== null, by, isSaid: isSaidToHang(open, listId, campaignId) },
    since: mirrored?.since.get(by === 'account' ? 'account' : campaignId) ?? null,
    weight: weighRows(open.snapshot, by === null ? servingRows(open.snapshot, rows) : rows),
    heed: sayStatus(open.snapshot, place),
    touched: touchedKeywords(
      open,
      gate,
      hurting.flatMap(({ stopped }) => stopped),
      place,
      // Where it hangs, what served before can not be told by the window: see viewCellBefore.
      by === null ? keywordsThatConverted(open.snapshot, rows) : [],
    ),
    protectedTerms: few(by === null ? reach.protectedTerms : []),
    faults: faultsOf(open, place, hurting),
  };
}

/** Whether only a person says that a list hangs there, and no structure file has shown it yet. */
function isSaidToHang({ accepted }: Open, listId: string, campaignId: string): boolean {
  return accepted.some(
    ({ change, state }) =>
      state === 'said' &&
      change.kind === 'hang list' &&
      change.listId === listId &&
      (change.campaignId === null || change.campaignId === campaignId),
  );
}

/**
 * What the terms that a list stops on a campaign did there before the list hung (rules 3.2 and 4). Unknown where the
 * list hung before the first day of data.
 */
export async function viewCellBefore(
  deps: Deps,
  slug: string,
  listId: string,
  campaignId: string,
): Promise<Stopped> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const list = open.snapshot.mirror.lists.find((l) => l.id === listId);
  if (!list) throw new Refusal('This list is not there any more.', 404);
  const since = list.since.get(list.hungOn === 'account' ? 'account' : campaignId) ?? '';
  const entries = open.snapshot.mirror.negatives.filter(
    (n) => n.place.kind === 'list' && n.place.id === listId,
  );
  const there = { ...list, hungOn: [campaignId], since: new Map([[campaignId, since]]) };
  const [stopped] = await sumStoppedBefore(deps, open, [{ list: there, entries }]);
  return stopped!;
}

function faultsOf(
  open: Open,
  place: Place,
  hurting: readonly { entry: NegativeText; stopped: StoppedKeyword[] }[],
): CellAnswer['faults'] {
  const { gate } = open.draft;
  const faults = hurting.map(({ entry, stopped }) => ({
    entry,
    keywords: touchedKeywords(open, gate, stopped, place, []),
    stops: weighRows(open.snapshot, gate.within(rowsOfEntries(open, [entry]), place)),
  }));
  faults.sort((a, b) => howBad(b.keywords) - howBad(a.keywords));
  return { count: faults.length, first: faults.slice(0, MOST_HURT) };
}
