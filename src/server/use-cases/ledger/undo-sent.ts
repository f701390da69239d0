import { randomUUID } from 'node:crypto';
import { counted, inverse, isNewListId, newListId, type Change } from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { findSet } from '../../repositories/tray/change-sets';
import { findChange } from '../../repositories/tray/changes';
import { loadInForce, type InForce } from '../../repositories/tray/in-force';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { draftChanges } from '../tray/draft-changes';
import { workOf } from '../tray/kinds';

/** Puts the change that takes a sent change back in the tray. @throws Refusal when it was not read back yet */
export async function undoSent(
  deps: Deps,
  slug: string,
  personId: number,
  changeId: number,
): Promise<DraftOutcome> {
  const account = await requireAccount(deps, slug);
  const sent = await findChange(deps.db, account.id, changeId);
  const set = sent && (await findSet(deps.db, account.id, sent.setId));
  if (!sent || !set || ['draft', 'sending', 'handed over'].includes(set.state)) {
    throw new Refusal(
      'Only what was sent and read back can be undone here; what is in the tray can be removed there.',
      409,
    );
  }
  const [outcome] = await takeBackAll(deps, slug, personId, [sent]);
  return outcome!;
}

/** What is undone together: the tray of a change, or everything that was sent with it and later. */
export type UndoneTogether = 'tray' | 'since';

/**
 * Puts what takes several sent changes back in the tray, the last first, so that the account comes to stand as it did
 * before them. What was taken back already stays so, with what took it back.
 * @param changeId a change of the tray
 * @returns what is to be said of it, and what was put in, so that it can be taken out again
 * @throws Refusal when there is nothing to undo; nothing was put in the tray then
 */
export async function undoTogether(
  deps: Deps,
  slug: string,
  personId: number,
  changeId: number,
  what: UndoneTogether,
): Promise<{ said: string; changeIds: number[] }> {
  const account = await requireAccount(deps, slug);
  const sent = await findChange(deps.db, account.id, changeId);
  const all = await loadInForce(deps.db, account.id);
  const isMeant = ({ setId }: InForce) =>
    sent !== undefined && (what === 'tray' ? setId === sent.setId : setId >= sent.setId);
  const standing = stillStanding(all.filter(isMeant));
  if (standing.length === 0)
    throw new Refusal('Nothing of it stands any more, so there is nothing to undo.', 409);
  const outcomes = await takeBackAll(deps, slug, personId, standing.reverse());
  const drafted = outcomes.flatMap((one) => (one.outcome === 'drafted' ? [one.changeId] : []));
  const others = outcomes.filter(({ outcome }) => outcome !== 'drafted' && outcome !== 'cancelled');
  if (others.length === outcomes.length)
    throw new Refusal(`Nothing was put in the tray: ${others[0]!.said}`, 409);
  const more = others.length > 0 ? ` ${counted(others.length, 'other')} not: ${others[0]!.said}` : '';
  return {
    said: `In the tray: what undoes ${counted(outcomes.length - others.length, 'change')}.${more}`,
    changeIds: drafted,
  };
}

/** Without what was taken back, and without what took back another of them: both together changed nothing. */
function stillStanding(changes: readonly InForce[]): InForce[] {
  const ids = new Set(changes.map(({ id }) => id));
  const takenBack = new Set(changes.flatMap(({ undoes }) => undoes ?? []));
  return changes.filter(
    ({ id, undoes, undoneDay }) =>
      undoneDay === null && !takenBack.has(id) && (undoes === null || !ids.has(undoes)),
  );
}

async function takeBackAll(
  deps: Deps,
  slug: string,
  personId: number,
  sent: readonly { id: number; change: Change }[],
): Promise<DraftOutcome[]> {
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    sent.map(({ id, change }) => ({
      ...{ change: takingBack(change), why: 'takes back a sent change', undoes: id },
    })),
  );
  for (const [i, { change }] of sent.entries())
    if (outcomes[i]!.outcome === 'drafted') await workOf(change).afterUndo?.(change, deps, slug, personId);
  return outcomes;
}

/** The change that takes another back. A list that was removed is made anew, so it gets an id of its own. */
function takingBack(change: Change): Change {
  const back = inverse(change);
  return back.kind === 'make list' && !isNewListId(back.listId)
    ? { ...back, listId: newListId(randomUUID()) }
    : back;
}
