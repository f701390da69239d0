import { counted, listed } from '@/core';
import type { TrayChange } from '@/contracts/tray';

/** Changes that one action put in the tray, in the order of the tray. */
export type ChangeGroup = { key: string; changes: readonly TrayChange[] };

/** Groups the changes of a tray by the action that put them in; a group stands where its newest change stands. */
export function groupChanges(changes: readonly TrayChange[]): ChangeGroup[] {
  const groups = new Map<string, TrayChange[]>();
  for (const change of changes) {
    const group = groups.get(change.action);
    if (group) group.push(change);
    else groups.set(change.action, [change]);
  }
  return [...groups].map(([key, of]) => ({ key, changes: of }));
}

/** A group in words: what its changes do, and the first of them. */
export function sayGroup(changes: readonly TrayChange[]): { title: string; first: string } {
  const isStops = changes.every(({ kind }) => kind === 'add negative');
  const title = isStops
    ? `Stop by ${counted(changes.length, 'negative')}`
    : counted(changes.length, 'change');
  const named = changes
    .slice(0, 3)
    .map(({ change, said }) => (change.kind === 'add negative' ? `“${change.text}”` : said));
  return { title, first: listed(named, changes.length) };
}

export type Effect = { terms: number; costMicros: number; opens: boolean };

/** What a change, or several, stop; what they open again where that is what they do. Sums are of what each adds. */
export function effectOf(changes: readonly TrayChange[]): Effect {
  const sum = (of: 'stops' | 'reopens') => ({
    terms: changes.reduce((terms, change) => terms + change[of].terms, 0),
    costMicros: changes.reduce((cost, change) => cost + (change[of].costMicros ?? 0), 0),
  });
  const [stops, reopens] = [sum('stops'), sum('reopens')];
  return reopens.terms > stops.terms ? { ...reopens, opens: true } : { ...stops, opens: false };
}
