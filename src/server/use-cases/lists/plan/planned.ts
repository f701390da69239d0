import {
  newListId,
  normalise,
  type Change,
  type ListContent,
  type ListState,
  type NegativeText,
  type Place,
} from '@/core';
import { randomUUID } from 'node:crypto';
import type { EditPlan, ListEdit } from '@/contracts/list-edits';
import { Refusal } from '../../deps';
import type { Open } from '../../open-workbench';
import { requireList } from '../known-lists';

export type EditOf<D extends ListEdit['do']> = Extract<ListEdit, { do: D }>;

/** An edit as changes, with what was not taken of it. */
export type Planned = {
  said: string;
  changes: Change[];
  /** why each change is made, for the ledger */
  why: string | null;
  refused?: EditPlan['refused']['first'];
  twice?: number;
  already?: number;
  folded?: EditPlan['folded']['first'];
  /** no gate may answer otherwise after it */
  keepsAnswers?: boolean;
  /** the list that the edit is about; the preview tells its campaigns even where no change touches it */
  about?: string;
  /** versions of somebody else that are settled by it */
  undoesVersion?: number;
};

export const placeOf = (id: string): Place => ({ kind: 'list', id });
export const adds = (listId: string, entries: readonly NegativeText[]): Change[] =>
  entries.map(({ text, match }) => ({ kind: 'add negative', text, match, place: placeOf(listId) }));
export const removes = (listId: string, entries: readonly NegativeText[]): Change[] =>
  entries.map(({ text, match }) => ({ kind: 'remove negative', text, match, place: placeOf(listId) }));

export type Target = { id: string; name: string; makes: Change[] };

/** A list that is there, or the change that makes one. */
export function targetOf(open: Open, into: EditOf<'paste'>['into'], holds: ListContent): Target {
  if ('id' in into) {
    const list = requireList(open, into.id);
    if (list.holds !== holds)
      throw new Refusal(`${list.name} holds ${list.holds}, and these are ${holds}. Choose another list.`);
    return { id: list.id, name: list.name, makes: [] };
  }
  return made(into.make, holds);
}

export function made(name: string, holds: ListContent = 'words'): Target {
  const id = newListId(randomUUID());
  return { id, name, makes: [{ kind: 'make list', listId: id, name, holds }] };
}

/** Entries, each once. */
export function distinct(entries: readonly NegativeText[]): NegativeText[] {
  return [...new Map(entries.map((entry) => [`${entry.match} ${normalise(entry.text)}`, entry])).values()];
}

/** A list as the tray leaves it. */
export function stateOf(open: Open, listId: string): ListState {
  const { gate } = open.draft;
  const hungOn = gate.hungOn(listId);
  return {
    name: requireList(open, listId).name,
    entries: gate.entriesAt(placeOf(listId)),
    placements: gate.placementsIn(listId),
    hungOn: hungOn === 'account' ? [null] : hungOn,
  };
}
