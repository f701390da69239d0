import { ascending, min } from 'd3';
import { reckonSaved, rowsActedOn, type SavedPart, type Stopping } from '@/core';
import { derivedByKey, derivedLater } from '../../../compute/derived';
import { rowsOfTerm, type Snapshot } from '../../../compute/snapshot';
import type { Account } from '../../../repositories/account/accounts';
import { loadSumsSince, loadTraffic } from '../../../repositories/facts';
import { findDataDays } from '../../../repositories/intake/reports';
import { loadInForce } from '../../../repositories/tray/in-force';
import type { Deps } from '../../deps';
import { openSnapshotOf } from '../../open-workbench';
import { firstOfMonth, sumsByRow } from '../weigh-since';
import { layOverPeriods, type ActingChange, type Periods } from './acting';
import { playOver } from './played';

/** What was sent saved, by change and period; the changes in the order in which they were sent. */
export type Saved = {
  newest: string;
  periods: Periods;
  changes: readonly ActingChange[];
  partsOf: ReadonlyMap<ActingChange, readonly SavedPart<ActingChange>[]>;
  /** over the days from the first one before the first change to the newest */
  snapshot: Snapshot;
};

/** What an account's changes saved so far (rules 13.4); null where no data have come since one was sent. Kept until something is sent or loaded. */
export async function reckonOf(deps: Deps, account: Account): Promise<Saved | null> {
  const newest = (await findDataDays(deps.db, account.id))?.to;
  if (newest === undefined) return null;
  const sent = await loadInForce(deps.db, account.id);
  const { acting, periods } = layOverPeriods(sent, newest);
  const earliest = min(periods.starts);
  if (acting.length === 0 || earliest === undefined) return null;
  const snapshot = await openSnapshotOf(deps, account, { from: firstOfMonth(earliest), to: newest });
  const key = JSON.stringify(acting.map(({ sent: { id, state, undoneDay } }) => [id, state, undoneDay]));
  return found(keptFor(snapshot, key), async () => {
    const stopping = creditRows(snapshot, acting);
    const terms = [...new Set([...stopping.keys()].map((r) => snapshot.rows.termOf[r]!))].sort(ascending);
    const ids = terms.map((t) => snapshot.terms.ids[t]!);
    const sums = await loadSumsSince(deps.db, account.id, newest, ids, periods.starts);
    const traffic = await loadTraffic(deps.db, account.id, newest, periods.starts);
    const played = playOver(snapshot, periods, sumsByRow(snapshot, sums), traffic);
    setToCome(acting, stopping, (row, change) => played.rowOf(row).before(change));
    const partsOf = new Map<ActingChange, SavedPart<ActingChange>[]>(acting.map((change) => [change, []]));
    for (const t of terms) {
      const of = rowsOfTerm(snapshot, t);
      const own = of.flatMap((r, row): Stopping<ActingChange>[] =>
        (stopping.get(r) ?? []).map((change) => ({ row, change })),
      );
      for (const part of reckonSaved(periods.days, of.map(played.rowOf), own))
        partsOf.get(part.change)!.push(part);
    }
    return { newest, periods, snapshot, changes: acting, partsOf };
  });
}

const keptFor = derivedByKey(
  (key: string) => key,
  (_: Snapshot, key: string) => ({ key }),
  2,
);
const found = derivedLater<{ key: string }, Saved>();

/** Each row is credited to the first change that stops it, until that is taken back, and then to the next. */
function creditRows(
  snapshot: Snapshot,
  acting: readonly ActingChange[],
): ReadonlyMap<number, readonly ActingChange[]> {
  const stopping = new Map<number, ActingChange[]>();
  for (const change of acting)
    for (const row of rowsActedOn(change.sent.change, snapshot.gate)) {
      const of = stopping.get(row);
      if (!of) stopping.set(row, [change]);
      else if (of.at(-1)!.until <= change.from) of.push(change);
    }
  return stopping;
}

/** What was costliest comes lower (rules 13.2): that of a change as it was predicted, where that is known. */
function setToCome(
  acting: readonly ActingChange[],
  stopping: ReadonlyMap<number, readonly ActingChange[]>,
  costADay: (row: number, change: ActingChange) => number,
): void {
  const before = new Map<ActingChange, number>();
  for (const [row, changes] of stopping)
    for (const change of changes)
      before.set(change, (before.get(change) ?? 0) + costADay(row, change) * change.before.days);
  for (const change of acting) {
    const predicted = change.sent.before?.predicted;
    const cost = before.get(change) ?? 0;
    if (predicted && cost > 0) change.toCome = predicted.stoppedMicros / cost;
  }
}
