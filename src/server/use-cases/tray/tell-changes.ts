import { hash } from 'node:crypto';
import {
  describeChange,
  listAlteredBy,
  listOf,
  negativesBroughtBy,
  stopsIn,
  type Change,
  type RowGate,
} from '@/core';
import type { Touched } from '@/contracts/common';
import type { TrayChange, TrayView } from '@/contracts/tray';
import { derivedOnward } from '../../compute/derived';
import { noteOnPlace, servingRows } from '../../compute/serving';
import {
  few,
  keywordsStoppedBy,
  keywordsThatConverted,
  touchedKeywords,
  weighRows,
} from '../../compute/workbench';
import { whereItHangs } from '../lists/in-words';
import type { Open } from '../open-workbench';
import { hurtBy } from './hurts';

/** The changes of a draft as the tray shows them; digests[i] tells what was told of the changes 0 to i. */
type Told = { changes: readonly TrayChange[]; digests: readonly string[] };

/**
 * Cached, because a tray may hold thousands of changes and several people look at it. Where the draft only grew, what was
 * told of a change stays, unless a later one is about the same list.
 */
const toldOf = derivedOnward((open: Open, before: Told = { changes: [], digests: [] }): Told => {
  const lists = new Set(open.drafted.slice(before.changes.length).map(({ change }) => listOf(change)));
  lists.delete(undefined);
  const changes = open.drafted.map((_, i) => {
    const told = before.changes[i];
    return told && !lists.has(listOf(told.change)) ? told : tellChange(open, i);
  });
  const same = changes.findIndex((change, i) => change !== before.changes[i]);
  const digests = before.digests.slice(0, same === -1 ? changes.length : same);
  for (let i = digests.length; i < changes.length; i++)
    digests.push(hash('sha1', `${digests[i - 1] ?? ''}${JSON.stringify(changes[i])}`, 'base64url'));
  return { changes, digests };
});

/**
 * The changes of the draft, without those of which the asker knows already what would be told.
 * @param known `told` of the answer before
 */
export function tellChanges(open: Open, known = ''): Pick<TrayView, 'changes' | 'kept' | 'told'> {
  const { changes, digests } = toldOf(open);
  const [count, digest] = known.split(' ');
  const kept = digest !== undefined && digests[Number(count) - 1] === digest ? Number(count) : 0;
  return { changes: changes.slice(kept), kept, told: `${changes.length} ${digests.at(-1) ?? ''}` };
}

/** @param i of the change in the draft */
function tellChange(open: Open, i: number): TrayChange {
  const { snapshot, draft } = open;
  const stored = open.drafted[i]!;
  const { change } = stored;
  const step = draft.steps[i]!;
  const hits = stored.forcedBecause ? [] : hurtBy(open, change, draft.gate);
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
    endsOn: stored.endsOn,
    comments: stored.comments,
    forcedBecause: stored.forcedBecause,
    failedBefore: stored.failedBefore,
    touched: touchedBy(open, change, draft.gate, step.stopped),
    reaches: reachOfList(open, change),
    heldBackBy: few(hits),
  };
}

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
