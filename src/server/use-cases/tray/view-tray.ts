import type { Days } from '@/contracts/days';
import {
  changeKey,
  describeChange,
  describePlace,
  noFigures,
  plainAmount,
  roomAfter,
  writeCsv,
} from '@/core';
import type { SentState, TrayView } from '@/contracts/tray';
import { few, weighRows } from '../../compute/workbench';
import { servingRows } from '../../compute/serving';
import { findLastClosed, listUnderway, type ChangeSet } from '../../repositories/tray/change-sets';
import { loadChangesOf } from '../../repositories/tray/changes';
import type { Deps } from '../deps';
import { sayFailure } from './draft-again';
import { isLost } from './hand-over/say-done';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { NO_SPEND, stoppedByDay } from './stopped-spend';
import { derivedFrom } from '../../compute/derived';
import { tellChanges } from './tell-changes';

/**
 * The tray: each change with what it adds, all of them together, and what was sent last.
 * @param known what the asker knows of the changes already, as the last answer told: those are left out
 */
export async function viewTray(deps: Deps, slug: string, days?: Days, known?: string): Promise<TrayView> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, days);
  const { snapshot, draft, drafted } = open;
  const [spend, sent] = await Promise.all([spendByDay(deps, open), viewSent(deps, open)]);
  return {
    window: snapshot.window,
    ...tellChanges(open, known),
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
    ...{ trouble: set.trouble, isStopped: set.isStopped, sendAt: set.sendAt },
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
