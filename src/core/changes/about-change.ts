import type { NegativeText, Place } from '../gate';
import type { Change } from './change';
import { rulesOf } from './kinds';
import type { KindRules, MadeList } from './kinds/kind';
import type { Names } from './names';
import type { RowGate } from './gate/row-gate';

/**
 * The change that takes this one back. `inverse(inverse(c))` is c.
 * @example inverse(stop).kind // 'remove negative'
 */
export function inverse(change: Change): Change {
  return rulesOf(change).inverse(change);
}

/**
 * What a change is about, whichever way it goes: two changes of one key are the same (drafted once) or opposites
 * (which cancel).
 * @example changeKey({ kind: 'make list', listId: 'new:1', name: 'Jobs' }) // 'list|new:1'
 */
export function changeKey(change: Change): string {
  return rulesOf(change).key(change);
}

/**
 * What a change leads to: it tells a change from its opposite, and one bid for a keyword from another.
 * @example outcomeKey({ kind: 'hang list', listId: '7', campaignId: 'c1' }) // 'hang list|hanging|7|c1|'
 */
export function outcomeKey(change: Change): string {
  return `${change.kind}|${changeKey(change)}|${rulesOf(change).value?.(change) ?? ''}`;
}

/**
 * Whether the second change takes the first one back.
 * @example cancels(stop, inverse(stop)) // true
 */
export function cancels(first: Change, second: Change): boolean {
  return outcomeKey(inverse(first)) === outcomeKey(second);
}

/**
 * A change in one line of words, as the tray and the ledger show it.
 * @example describeChange(stop, names) // 'Stop “free” (broad) in the whole account'
 */
export function describeChange(change: Change, names: Names): string {
  return rulesOf(change).say(change, names);
}

/**
 * What a person sees at once of a change: whether it stops something, opens something, or neither.
 * @example doesWhat(stop) // 'stops'
 */
export function doesWhat(change: Change): KindRules<Change>['does'] {
  return rulesOf(change).does;
}

/**
 * The list that must exist for a change, or that the change makes; undefined where there is none.
 * @example listOf({ kind: 'hang list', listId: '7', campaignId: 'c1' }) // '7'
 */
export function listOf(change: Change): string | undefined {
  return rulesOf(change).list?.(change);
}

/**
 * The list that a change makes; undefined where it makes none.
 * @example listMadeBy({ kind: 'make list', listId: 'new:1', name: 'Jobs' })?.holds // 'words'
 */
export function listMadeBy(change: Change): MadeList | undefined {
  return rulesOf(change).makes?.(change);
}

/**
 * Changes that can not stand once some others are taken out: those that fill a list, a campaign or an ad group which goes with them.
 * @param gone what is taken out
 * @returns what falls with it, in the order of `all`
 * @example dependentsOf([stop], [stop]) // []
 */
export function dependentsOf<C extends Change>(gone: readonly C[], all: readonly C[]): C[] {
  const made = new Set<string>();
  const lists = new Set<string>();
  const fallen = new Set<C>(gone);
  const note = (change: C) => {
    if (change.kind.startsWith('add ')) made.add(changeKey(change));
    const list = listMadeBy(change)?.listId;
    if (list !== undefined) lists.add(list);
  };
  gone.forEach(note);
  // What is made comes before what needs it, so one pass finds all.
  for (const change of all) {
    const needs = rulesOf(change).needs?.(change);
    const falls = (needs !== undefined && made.has(needs)) || lists.has(listOf(change) ?? '');
    if (!falls || fallen.has(change)) continue;
    fallen.add(change);
    note(change);
  }
  return all.filter((change) => fallen.has(change) && !gone.includes(change));
}

/**
 * The list that a change alters, so that the change reaches every campaign on which the list hangs.
 * @example listAlteredBy({ kind: 'hang list', listId: '7', campaignId: 'c1' }) // undefined
 */
export function listAlteredBy(change: Change): string | undefined {
  return rulesOf(change).alters?.(change);
}

/**
 * The place where a change stops something; undefined for one that only opens, makes or sets.
 * @example stopsIn(stop) // { kind: 'account', id: null }
 */
export function stopsIn(change: Change): Place | undefined {
  return rulesOf(change).stopsIn?.(change);
}

/**
 * The negatives that a change brings into force somewhere: itself, or the entries of the list it hangs.
 * @example negativesBroughtBy(stop, layGate(served, account)) // [{ text: 'free', match: 'broad' }]
 */
export function negativesBroughtBy(change: Change, gate: RowGate): NegativeText[] {
  return rulesOf(change).brings?.(change, gate) ?? [];
}

/**
 * Rows that a change acts on, stopped by others or not; ascending, each once.
 * @param place where it acts; another place tells what it would act on there
 * @example rowsActedOn(stop, layGate(served, account)) // [0, 1]
 */
export function rowsActedOn(
  change: Change,
  gate: RowGate,
  place: Place | undefined = rulesOf(change).place?.(change),
): number[] {
  return (place && rulesOf(change).rowsIn?.(change, gate, place)) ?? [];
}
