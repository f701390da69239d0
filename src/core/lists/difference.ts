import { isNewListId, type Change } from '../changes';
import type { NegativeText, Place } from '../gate';
import { normalise } from '../text';

/** All that a shared list is. Order does not matter. */
export type ListState = {
  name: string;
  entries: readonly NegativeText[];
  placements: readonly string[];
  /** ids of campaigns; null among them is the whole account */
  hungOn: readonly (string | null)[];
};

/** What makes one state of a list into another. Nothing stands on both sides of it. */
export type ListDifference = {
  name: { was: string; is: string } | null;
  added: NegativeText[];
  removed: NegativeText[];
  placementsAdded: string[];
  placementsRemoved: string[];
  hung: (string | null)[];
  takenDown: (string | null)[];
};

const keyOf = ({ match, text }: NegativeText) => `${match} ${normalise(text)}`;
const itself = <T extends string | null>(value: T) => value;

/**
 * What must be done to make the list `from` into the list `to`.
 * @example differenceOf({ name: 'Jobs', entries: [], placements: [], hungOn: [] }, { name: 'Jobs', entries: [], placements: [], hungOn: ['c1'] }).hung // ['c1']
 */
export function differenceOf(from: ListState, to: ListState): ListDifference {
  return {
    name: from.name === to.name ? null : { was: from.name, is: to.name },
    added: without(to.entries, from.entries, keyOf),
    removed: without(from.entries, to.entries, keyOf),
    placementsAdded: without(to.placements, from.placements, itself),
    placementsRemoved: without(from.placements, to.placements, itself),
    hung: without(to.hungOn, from.hungOn, itself),
    takenDown: without(from.hungOn, to.hungOn, itself),
  };
}

/**
 * The list as a difference leaves it: `applyDifference(a, differenceOf(a, b))` is b.
 * @example applyDifference({ name: 'Jobs', entries: [], placements: [], hungOn: ['c1'] }, invertDifference(differenceOf({ name: 'Jobs', entries: [], placements: [], hungOn: [] }, { name: 'Jobs', entries: [], placements: [], hungOn: ['c1'] }))).hungOn // []
 */
export function applyDifference(state: ListState, difference: ListDifference): ListState {
  const { name, added, removed, placementsAdded, placementsRemoved, hung, takenDown } = difference;
  return {
    name: name?.is ?? state.name,
    entries: exchanged(state.entries, removed, added, keyOf),
    placements: exchanged(state.placements, placementsRemoved, placementsAdded, itself),
    hungOn: exchanged(state.hungOn, takenDown, hung, itself),
  };
}

/** The difference that leads back. @example invertDifference(invertDifference(differenceOf({ name: 'a', entries: [], placements: [], hungOn: [] }, { name: 'b', entries: [], placements: [], hungOn: [] }))).name // { was: 'a', is: 'b' } */
export function invertDifference(of: ListDifference): ListDifference {
  return {
    name: of.name && { was: of.name.is, is: of.name.was },
    ...{ added: of.removed, removed: of.added },
    ...{ placementsAdded: of.placementsRemoved, placementsRemoved: of.placementsAdded },
    ...{ hung: of.takenDown, takenDown: of.hung },
  };
}

/** Whether the two states were the same. @example isNoDifference(differenceOf({ name: 'a', entries: [], placements: [], hungOn: [] }, { name: 'a', entries: [], placements: [], hungOn: [] })) // true */
export function isNoDifference(difference: ListDifference): boolean {
  const { name, ...sides } = difference;
  return name === null && Object.values(sides).every((side) => side.length === 0);
}

/**
 * The changes that bring a difference about in a list. Where it adds entries and hangs, the entries come first, so that
 * what is said of the hanging tells all that it will stop.
 * @example changesFor(differenceOf({ name: 'a', entries: [], placements: [], hungOn: [] }, { name: 'b', entries: [], placements: [], hungOn: [] }), '7') // [{ kind: 'rename list', listId: '7', name: 'b', was: 'a' }]
 */
export function changesFor(difference: ListDifference, listId: string): Change[] {
  const place: Place = { kind: 'list', id: listId };
  const { name } = difference;
  return [
    ...(name && !isNewListId(listId)
      ? [{ kind: 'rename list' as const, listId, name: name.is, was: name.was }]
      : []),
    ...difference.takenDown.map((campaignId) => ({ kind: 'take down list' as const, listId, campaignId })),
    ...difference.removed.map((entry) => ({ kind: 'remove negative' as const, ...entry, place })),
    ...difference.added.map((entry) => ({ kind: 'add negative' as const, ...entry, place })),
    ...difference.placementsRemoved.map((address) => ({
      kind: 'remove placement' as const,
      address,
      listId,
    })),
    ...difference.placementsAdded.map((address) => ({ kind: 'add placement' as const, address, listId })),
    ...difference.hung.map((campaignId) => ({ kind: 'hang list' as const, listId, campaignId })),
  ];
}

/**
 * Splits a difference by who brought each part of it about.
 * @param ownerOf asked with the change that brings the part about, as `changesFor` gives it
 * @example splitDifference(differenceOf({ name: 'a', entries: [], placements: [], hungOn: [] }, { name: 'b', entries: [], placements: [], hungOn: [] }), '7', () => 1).get(1)?.name // { was: 'a', is: 'b' }
 */
export function splitDifference<Owner>(
  difference: ListDifference,
  listId: string,
  ownerOf: (change: Change) => Owner,
): Map<Owner, ListDifference> {
  const parts = new Map<Owner, ListDifference>();
  const partOf = (change: Change) => {
    const owner = ownerOf(change);
    if (!parts.has(owner)) parts.set(owner, noDifference());
    return parts.get(owner)!;
  };
  const place: Place = { kind: 'list', id: listId };
  const { name } = difference;
  if (name) partOf({ kind: 'rename list', listId, name: name.is, was: name.was }).name = name;
  for (const entry of difference.added) partOf({ kind: 'add negative', ...entry, place }).added.push(entry);
  for (const entry of difference.removed)
    partOf({ kind: 'remove negative', ...entry, place }).removed.push(entry);
  for (const address of difference.placementsAdded)
    partOf({ kind: 'add placement', address, listId }).placementsAdded.push(address);
  for (const address of difference.placementsRemoved)
    partOf({ kind: 'remove placement', address, listId }).placementsRemoved.push(address);
  for (const campaignId of difference.hung)
    partOf({ kind: 'hang list', listId, campaignId }).hung.push(campaignId);
  for (const campaignId of difference.takenDown)
    partOf({ kind: 'take down list', listId, campaignId }).takenDown.push(campaignId);
  return parts;
}

/** A difference that changes nothing. @example isNoDifference(noDifference()) // true */
export function noDifference(): ListDifference {
  return {
    ...{ name: null, added: [], removed: [] },
    ...{ placementsAdded: [], placementsRemoved: [], hung: [], takenDown: [] },
  };
}

function without<T>(all: readonly T[], those: readonly T[], key: (one: T) => string | null): T[] {
  const known = new Set(those.map(key));
  return distinct(all, key).filter((one) => !known.has(key(one)));
}

function exchanged<T>(
  all: readonly T[],
  gone: readonly T[],
  come: readonly T[],
  key: (one: T) => string | null,
): T[] {
  const left = new Set(gone.map(key));
  return distinct([...all.filter((one) => !left.has(key(one))), ...come], key);
}

function distinct<T>(all: readonly T[], key: (one: T) => string | null): T[] {
  return [...new Map(all.map((one) => [key(one), one])).values()];
}
