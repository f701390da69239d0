import type { Days } from '@/contracts/days';
import {
  changeKey,
  describeChange,
  describePlace,
  listAlteredBy,
  listOf,
  negativesBroughtBy,
  noFigures,
  plainAmount,
  roomAfter,
  stopsIn,
  writeCsv,
  type Change,
  type RowGate,
} from '@/core';
import type { SentState, TrayChange, TrayView } from '@/contracts/tray';
import type { Touched } from '@/contracts/common';
import {
  few,
  keywordsStoppedBy,
  keywordsThatConverted,
  protectedBy,
  touchedKeywords,
  weighRows,
} from '../../compute/workbench';
import { noteOnPlace, servingRows } from '../../compute/serving';
import { findLastClosed, listUnderway, type ChangeSet } from '../../repositories/tray/change-sets';
import { loadChangesOf } from '../../repositories/tray/changes';
import type { Deps } from '../deps';
import { sayFailure } from './draft-again';
import { isLost } from './hand-over/say-done';
import { whereItHangs } from '../lists/in-words';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { NO_SPEND, stoppedByDay } from './stopped-spend';
import { derivedFrom, derivedOnward } from '../../compute/derived';

/** The tray: each change with what it adds, all of them together, and what was sent last. */
export async function viewTray(deps: Deps, slug: string, days?: Days): Promise<TrayView> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, days);
  const { snapshot, draft, drafted } = open;
  const [spend, sent] = await Promise.all([spendByDay(deps, open), viewSent(deps, open)]);
  return {
    window: snapshot.window,
    changes: [...changesIn(open)],
    room: roomIn(open),
    stops:
      drafted.length > 0
        ? weighRows(snapshot, servingRows(snapshot, draft.stopped))
        : { terms: 0, ...noFigures() },
    reopens: weighRows(snapshot, servingRows(snapshot, draft.reopened)),
    days: spend,
    sent,
  };
}

/** The most changes of a tray under way that are named one by one. */
const MOST_WAITING = 200;

/**
 * Cached, because a tray may hold thousands of changes and several people look at it. Where the draft only grew, what was
 * told of a change stays, unless a later one is about the same list.
 */
const changesIn = derivedOnward((open: Open, before: readonly TrayChange[] = []): readonly TrayChange[] => {
  const lists = new Set(open.drafted.slice(before.length).map(({ change }) => listOf(change)));
  lists.delete(undefined);
  return open.drafted.map((_, i) => {
    const told = before[i];
    return told && !lists.has(listOf(told.change)) ? told : tellChange(open, i);
  });
});

/** @param i of the change in the draft */
function tellChange(open: Open, i: number): TrayChange {
  const { snapshot, draft } = open;
  const stored = open.drafted[i]!;
  const { change } = stored;
  const step = draft.steps[i]!;
  const hits = stored.forcedBecause ? [] : protectedBy(open, negativesBroughtBy(change, draft.gate));
  return {
    id: stored.id,
    kind: change.kind,
    change,
    said: describeChange(change, open.names),
    stops: weighRows(snapshot, servingRows(snapshot, step.stopped)),
    reopens: weighRows(snapshot, servingRows(snapshot, step.reopened)),
    placeNote: noteOnPlace(snapshot, change),
    by: stored.draftedBy,
    action: `${stored.draftedById} ${stored.draftedAt}`,
    why: stored.why,
    forcedBecause: stored.forcedBecause,
    failedBefore: stored.failedBefore,
    touched: touchedBy(open, change, draft.gate, step.stopped),
    reaches: reachOfList(open, change),
    heldBackBy: few(hits),
  };
}

/** How full the places are to which the draft adds. */
const roomIn = derivedFrom((open: Open): TrayView['room'] =>
  roomAfter(
    open.draft.gate,
    open.drafted.map((c) => c.change),
    open.account.limits,
  ).map(({ place, couldDrop, ...room }) => ({
    ...{ ...room, place: describePlace(place, open.names), at: place, couldDrop: few(couldDrop) },
  })),
);

/** The campaigns on which the list of a changed entry hangs: the change reaches all of them. */
function reachOfList({ draft, names }: Open, change: Change): string | null {
  const listId = listAlteredBy(change);
  if (listId === undefined) return null;
  return whereItHangs(draft.gate.hungOn(listId), (c) => names.campaign(c) ?? c);
}

/** Live keywords that a change touches where it brings negatives into force. */
export function touchedBy(open: Open, change: Change, gate: RowGate, stopped: readonly number[]): Touched {
  const place = stopsIn(change);
  const negatives = negativesBroughtBy(change, gate);
  if (!place || negatives.length === 0) return [];
  const byText = negatives.flatMap((negative) => keywordsStoppedBy(open, negative));
  return touchedKeywords(open, gate, byText, place, keywordsThatConverted(open.snapshot, stopped));
}

async function spendByDay(deps: Deps, open: Open): Promise<TrayView['days']> {
  const stopped = await stoppedByDay(deps, open);
  return open.snapshot.days.map(({ day, costMicros, returnedMicros }) => {
    const { costMicros: stoppedMicros, returnedMicros: stoppedReturned } = stopped.get(day) ?? NO_SPEND;
    const returned = returnedMicros - stoppedReturned;
    return {
      day,
      returnedMicros: returned,
      stoppedMicros,
      openMicros: costMicros - returned - stoppedMicros,
    };
  });
}

/** What was sent or handed over and is not closed, the newest first; where nothing is, what was closed last. */
async function viewSent(deps: Deps, open: Open): Promise<SentState[]> {
  const underway = (await listUnderway(deps.db, open.account.id)).reverse();
  const last = underway.length === 0 && (await findLastClosed(deps.db, open.account.id));
  const sent: SentState[] = [];
  for (const set of last ? [last] : underway) sent.push(await viewSet(deps, open, set));
  return sent;
}

async function viewSet(deps: Deps, open: Open, set: ChangeSet): Promise<SentState> {
  const changes = await loadChangesOf(deps.db, open.account.id, set.id);
  const waits = changes.filter((c) => c.state === 'drafted' || c.state === 'said');
  const drafted = new Set(open.drafted.map(({ change }) => changeKey(change)));
  return {
    setId: set.id,
    state: set.state as SentState['state'],
    sentBy: set.sentBy,
    sentAt: set.sentAt,
    total: changes.length,
    answered: changes.filter((c) => c.state !== 'drafted').length,
    waiting: waits
      .slice(0, MOST_WAITING)
      .map(({ id, change }) => ({ id, said: describeChange(change, open.names) })),
    confirmed: changes.filter((c) => c.state === 'there').length,
    failed: changes
      .filter((c) => c.state === 'refused' || c.state === 'missing' || c.state === 'different')
      .map((c) => ({
        said: describeChange(c.change, open.names),
        reason: sayFailure(c),
      })),
    lost: changes.filter((c) => isLost(c) && !drafted.has(changeKey(c.change))).length,
    ...{ trouble: set.trouble, isStopped: set.isStopped },
  };
}

/** The tray as a sheet, a change a row. */
export async function traySheet(deps: Deps, slug: string): Promise<string> {
  const { currency } = await requireAccount(deps, slug);
  const { changes } = await viewTray(deps, slug);
  return writeCsv(
    ['change', 'kind', 'terms stopped', 'clicks', `cost ${currency}`, 'conversions', 'put in by', 'why'],
    changes.map(({ said, kind, stops, by, why }) => {
      const cost = plainAmount(stops.costMicros ?? 0, currency);
      return [said, kind, stops.terms, stops.clicks, cost, stops.conversions, by, why];
    }),
  );
}
