import { inverse, negativesBroughtBy, STANDIN_LIMITS, type Change } from '@/core';
import type { CellAnswer, ListEntry, ListsView } from '@/contracts/screens';
import { few, keywordsStoppedBy, protectedBy, touchedKeywords, weighRows } from '../compute/workbench';
import { Refusal, type Deps } from './deps';
import { openWorkbench, requireAccount, type Open } from './open-workbench';
import { touchedBy } from './view-tray';

/** All shared lists, those in the tray too, and where they hang. */
export async function viewLists(deps: Deps, slug: string): Promise<ListsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { snapshot, standing } = open;
  const campaigns = snapshot.mirror.campaigns
    .filter((c) => c.status !== 'removed' && c.status !== 'ended')
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
  return {
    window: snapshot.window,
    campaigns: campaigns.map(({ id, name, status }) => ({ id, name, status })),
    lists: listsOf(open).map(({ id, name, isNew }) => {
      const hungOn = standing.hungOn(id);
      const entries = open.draft.gate.entriesAt({ kind: 'list', id }).length;
      return {
        ...{ id, name, isNew, entries, hungOn },
        drafted: draftedHangings(open, id),
        hurts: Object.fromEntries(
          (hungOn === 'account' ? campaigns.map((c) => c.id) : hungOn).flatMap((campaignId) => {
            const hurt = keywordsHurt(open, id, campaignId);
            return hurt > 0 ? [[campaignId, hurt]] : [];
          }),
        ),
        room: STANDIN_LIMITS.listNegatives - entries,
      };
    }),
  };
}

/** A list, and what it stops (or would stop) on one campaign. */
export async function weighCell(
  deps: Deps,
  slug: string,
  listId: string,
  campaignId: string | null,
): Promise<CellAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const list = listsOf(open).find((l) => l.id === listId);
  if (!list) throw new Refusal('This list is not there any more.', 404);
  const gate = open.draft.gate;
  const answer: CellAnswer = {
    ...{ listId, name: list.name, campaignId, campaignName: null, hangs: false },
    ...{ weight: weighRows(open.snapshot, []), touched: [], protectedTerms: few<string>([]) },
    entries: entriesOf(open, listId),
  };
  if (campaignId === null) return answer;
  const hungOn = gate.hungOn(listId);
  const hangs = hungOn === 'account' || hungOn.includes(campaignId);
  const hang: Change = { kind: 'hang list', listId, campaignId };
  const step = gate.fork().apply(hangs ? inverse(hang) : hang);
  const rows = hangs ? step.reopened : step.stopped;
  return {
    ...answer,
    campaignName: open.names.campaign(campaignId) ?? campaignId,
    hangs,
    weight: weighRows(open.snapshot, rows),
    touched: touchedBy(open, hang, gate, rows),
    protectedTerms: few(hangs ? [] : protectedBy(open, negativesBroughtBy(hang, gate))),
  };
}

function listsOf({ snapshot, onItsWay, drafted }: Open): { id: string; name: string; isNew: boolean }[] {
  const made = [...onItsWay, ...drafted].flatMap(({ change }) =>
    change.kind === 'make list' ? [{ id: change.listId, name: change.name, isNew: true }] : [],
  );
  const there = snapshot.mirror.lists.map(({ id, name }) => ({ id, name, isNew: false }));
  return [...there, ...made].sort((a, b) => a.name.localeCompare(b.name, 'en'));
}

function draftedHangings({ drafted }: Open, listId: string): Record<string, boolean> {
  return Object.fromEntries(
    drafted.flatMap(({ change }) =>
      (change.kind === 'hang list' || change.kind === 'take down list') && change.listId === listId
        ? [[change.campaignId, change.kind === 'hang list']]
        : [],
    ),
  );
}

/** Live keywords of a campaign whose own text an entry of the list stops. */
function keywordsHurt(open: Open, listId: string, campaignId: string): number {
  const place = { kind: 'campaign' as const, id: campaignId };
  const byText = open.standing
    .entriesAt({ kind: 'list', id: listId })
    .flatMap((entry) => keywordsStoppedBy(open, entry));
  return touchedKeywords(open, open.standing, byText, place, []).reduce((sum, { count }) => sum + count, 0);
}

function entriesOf({ snapshot, drafted, onItsWay }: Open, listId: string): ListEntry[] {
  const isIn = (change: Change) =>
    (change.kind === 'add negative' || change.kind === 'remove negative') &&
    change.place.kind === 'list' &&
    change.place.id === listId;
  const entry = ({ text, match }: { text: string; match: ListEntry['match'] }) => ({ text, match });
  const there = snapshot.mirror.negatives.filter((n) => n.place.kind === 'list' && n.place.id === listId);
  const changes = [...onItsWay, ...drafted].map((c) => c.change).filter(isIn) as Extract<
    Change,
    { text: string }
  >[];
  const isRemoved = (n: { text: string; match: string }) =>
    changes.some((c) => c.kind === 'remove negative' && c.text === n.text && c.match === n.match);
  return [
    ...changes
      .filter((c) => c.kind === 'add negative')
      .map((c) => ({ ...entry(c), since: null, drafted: 'added' as const })),
    ...there.map((n) => ({
      ...entry(n),
      since: n.createdAt,
      drafted: isRemoved(n) ? ('removed' as const) : null,
    })),
  ];
}
