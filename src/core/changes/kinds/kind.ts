import type { NegativeText, Place } from '../../gate';
import type { Change, ChangeKind, ChangeOf, ListContent } from '../change';
import type { Limits } from '../limits';
import type { Names } from '../names';
import type { GateWriter, RowGate, Step } from '../gate/row-gate';

/**
 * Everything that the core must know of a kind of change. What a kind leaves out does not concern it: a bid brings no
 * negative, and needs no list.
 */
export type KindRules<C extends Change> = {
  /** What a person sees at once: it stops something, it opens something, or neither. */
  does: 'stops' | 'opens' | 'neither';
  /** What the change is about, whichever way it goes: the natural key of the tray. */
  key(change: C): string;
  /** The change that takes this one back. */
  inverse(change: C): Change;
  /** What tells changes of this kind and key apart: the name that a renaming gives, say. */
  value?(change: C): string;
  /** One line of words, as the tray and the ledger show it. */
  say(change: C, names: Names): string;
  /** The key of the change that makes what this one needs, where a change can make it: the ad group of a keyword. */
  needs?(change: C): string | undefined;
  /** The list that must exist. */
  list?(change: C): string | undefined;
  /** The list that the change makes. */
  makes?(change: C): MadeList;
  /** The list whose campaigns the change reaches, because the change alters what the list is. */
  alters?(change: C): string | undefined;
  /** Where something is stopped that was not. */
  stopsIn?(change: C): Place;
  /** The negatives that come into force there. */
  brings?(change: C, gate: RowGate): NegativeText[];
  /** Rows that the change acts on within a place, stopped by others or not; ascending, each once. */
  rowsIn?(change: C, gate: RowGate, place: Place): number[];
  /** The place where the change acts. */
  place?(change: C): Place;
  /** Lays the change over the rows of a window; what stops no row by itself leaves it out. */
  apply?(change: C, gate: GateWriter): Step;
  /** Makes what the change is about stand as it does in an account; what lays nothing leaves it out. */
  restore?(change: C, gate: GateWriter, account: RowGate): Step;
  /** How full the place is that the change adds to, if a limit stands on it (rules 12). */
  fills?(change: C, count: Counted, limits: Limits): Filled | undefined;
};

export type MadeList = { listId: string; name: string; holds: ListContent };

/** What stands in places that have a limit. */
export type Counted = {
  negatives(place: Place): number;
  placements(listId: string): number;
  listsOn(campaignId: string): number;
};

/** How full a place is, once all changes are made. */
export type Filled = {
  what: 'negatives' | 'lists' | 'placements';
  /** the account, a list, or a campaign (which takes lists) */
  place: Place;
  used: number;
  most: number;
};

/** The rules of some kinds, each under its name. */
export type RulesFor<K extends ChangeKind> = { [Kind in K]: KindRules<ChangeOf<Kind>> };
