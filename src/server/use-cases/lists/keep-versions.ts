import { max } from 'd3';
import {
  differenceOf,
  isNoDifference,
  noDifference,
  outcomeKey,
  splitDifference,
  type ListState,
} from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { Db } from '../../db/connection';
import type { StoredChange } from '../../repositories/tray/changes';
import { loadListStates, type StoredList } from '../../repositories/lists/list-states';
import { partedByAuthor, type Author } from '../tray/elsewhere/authors';
import { insertListVersions, type NewVersion } from '../../repositories/lists/list-versions';

/** Who changed something of a list, by its platform id; where several did, all of them and the last of the days. */
function authorsOfLists(answer: StructureAnswer): Map<string, Author> {
  const authors = new Map<string, Author>();
  for (const { author, part } of partedByAuthor(answer)) {
    if (author.by === null) continue;
    for (const id of listsTouched(part)) {
      const known = authors.get(id);
      const names = new Set([...(known?.by?.split(', ') ?? []), author.by]);
      authors.set(id, { by: [...names].join(', '), on: max([known?.on ?? '', author.on ?? '']) || null });
    }
  }
  return authors;
}

/** Platform ids of the lists that an answer says something about. */
export function listsTouched({ lists, hangings, negatives, placements }: StructureAnswer): string[] {
  return [
    ...new Set([
      ...lists.map((list) => list.id),
      ...[...hangings, ...placements].map(({ listId }) => listId),
      ...negatives.flatMap(({ place }) => (place.kind === 'list' ? [place.id] : [])),
    ]),
  ];
}

/**
 * Keeps what a read-back changed in lists as versions of them: what was sent from here under the name of who drafted it,
 * the rest as somebody else's, which waits to be looked at.
 * @param answer of the platform, which may say who changed what
 * @param before the touched lists as they stood
 * @param ours changes that were sent and not read back until now, lists under their own ids
 */
export async function keepListVersions(
  db: Db,
  accountId: number,
  answer: StructureAnswer,
  before: ReadonlyMap<string, StoredList>,
  ours: readonly StoredChange[],
): Promise<void> {
  const after = await loadListStates(db, accountId, listsTouched(answer));
  const authorOf = authorsOfLists(answer);
  const bySender = new Map<string, number>();
  for (const { change, state, draftedById } of ours)
    if (state !== 'refused') bySender.set(outcomeKey(change), draftedById);
  const versions = [...new Set([...before.keys(), ...after.keys()])].flatMap((id) =>
    versionsOf(before.get(id), after.get(id), bySender).map((version): NewVersion => {
      const { platformId } = (after.get(id) ?? before.get(id))!;
      return { ...version, ...(version.personId === null && authorOf.get(platformId ?? '')) };
    }),
  );
  await insertListVersions(db, accountId, versions);
}

function versionsOf(
  was: StoredList | undefined,
  is: StoredList | undefined,
  bySender: ReadonlyMap<string, number>,
): NewVersion[] {
  const { id, name, holds } = (is ?? was)!;
  const nothing: ListState = { name, entries: [], placements: [], hungOn: [] };
  const difference = differenceOf(was ?? nothing, is ?? nothing);
  const what = was ? (is ? 'changed' : 'removed') : 'made';
  if (what === 'changed' && isNoDifference(difference)) return [];
  // Who made or removed it owns the version, even when it is empty.
  const whole =
    bySender.get(outcomeKey({ kind: what === 'removed' ? 'remove list' : 'make list', listId: id, name })) ??
    null;
  const parts = splitDifference(difference, id, (change) => bySender.get(outcomeKey(change)) ?? null);
  if (what !== 'changed' && !parts.has(whole)) parts.set(whole, noDifference());
  return [...parts].map(([personId, part]) => ({
    ...{ listId: id, listName: name, holds, personId, difference: part },
    what: what !== 'changed' && personId !== whole ? 'changed' : what,
  }));
}
