import {
  cancels,
  changeKey,
  describeChange,
  doesWhat,
  keyOfNewList,
  listed,
  listMadeBy,
  listOf,
  type Change,
} from '@/core';
import type { MadeFor } from '@/contracts/knots';
import type { DraftOutcome } from '@/contracts/tray';
import { derivedOnward } from '../../compute/derived';
import { noteOnPlace } from '../../compute/serving';
import { few } from '../../compute/workbench';
import type { NewChange } from '../../repositories/tray/changes';
import { namesWithMade } from '../names';
import type { Open } from '../open-workbench';
import { hurtBy } from './hurts';
import { workOf } from './kinds';
import { refuse, saysNothingNew } from './refuse-change';

/** A change that a person wants, and why. */
export type Wanted = {
  change: Change;
  why?: string | null;
  forcedBecause?: string;
  undoes?: number;
  /** the search term from which a negative is made */
  from?: string;
  /** the knot that it is to untangle */
  knot?: MadeFor;
};

type Drafted = Extract<DraftOutcome, { outcome: 'drafted' }>;
/** A change that goes into the tray, with the outcome that waits for the id of its row. */
type Made = { change: Change; row: NewChange; outcome: Drafted };
/** What is in the tray: stored, or made just now. */
type Standing = { change: Change; id: number; by: string } | Made;

/** A tray to which changes are put one after another, each seeing those before it. Nothing is written. */
export type TrayInMemory = {
  /** Decides on a change, and puts it in or takes its opposite out. */
  put(wanted: Wanted): DraftOutcome;
  /** ids of stored changes that were taken out */
  gone(): readonly number[];
  /** changes that were put in and not taken out again, in order */
  made(): readonly Made[];
};

/** What each change of a draft is about. */
const keysOf = derivedOnward(({ drafted }: Open, before: readonly string[] = []): readonly string[] => [
  ...before,
  ...drafted.slice(before.length).map(({ change }) => changeKey(change)),
]);

/** @param opened the account with its draft; its gate is the tray's from here on */
export function openTray(opened: Open, personId: number): TrayInMemory {
  let open = opened;
  const { gate } = opened.draft;
  const gone: number[] = [];
  const keys = keysOf(opened);
  const inTray = new Map<string, Standing>(
    opened.drafted.map(({ id, change, draftedBy: by }, i) => [keys[i]!, { id, change, by }]),
  );

  function takeOut(standing: Standing) {
    inTray.delete(changeKey(standing.change));
    gate.restore(standing.change, opened.awaited);
    if ('id' in standing) gone.push(standing.id);
    if (isOfNames(standing.change))
      open = { ...open, laid: open.laid.filter((change) => change !== standing.change) };
  }

  function putIn(made: Made) {
    inTray.set(changeKey(made.change), made);
    gate.apply(made.change);
    if (isOfNames(made.change))
      open = { ...open, laid: [...open.laid, made.change], names: namesWithMade(open, [made.change]) };
  }

  function put(wanted: Wanted): DraftOutcome {
    const { change } = wanted;
    const refusal = refuse(open, change);
    if (refusal) return { outcome: 'refused', said: refusal };
    const same = inTray.get(changeKey(change));
    if (same && cancels(same.change, change)) {
      takeOut(same);
      const was = describeChange(same.change, open.names);
      return { outcome: 'cancelled', removed: same.change, said: `Taken out of the tray: ${was}.` };
    }
    // With a reason, a change that is in the tray without one goes in anew.
    const isAnew = same !== undefined && 'id' in same && wanted.forcedBecause !== undefined;
    if (same && !isAnew) {
      const said = workOf(change).sameInTray ?? 'This is in the tray already';
      return { outcome: 'already there', said: `${said}${'by' in same ? `, put in by ${same.by}` : ''}.` };
    }
    const alreadySo = isAnew ? undefined : saysNothingNew(open, change);
    if (alreadySo) return { outcome: 'already there', said: alreadySo };
    const hits = hurtBy(open, change, gate, (key) => inTray.has(key));
    if (hits.length > 0 && !wanted.forcedBecause) return holdBack(hits);
    if (same) takeOut(same);
    const outcome: Drafted = {
      ...{ outcome: 'drafted', changeId: 0, change },
      said: describeChange(change, namesWithMade(open, [change])),
      heed: noteOnPlace(open.snapshot, change),
    };
    putIn({ change, outcome, row: rowOf(wanted, personId, hits.length > 0) });
    return outcome;
  }

  return {
    put,
    gone: () => gone,
    made: () => [...inTray.values()].filter((standing) => 'row' in standing),
  };
}

/** Whether a change makes, removes or names something that others name: what there is of them is found anew then. */
const isOfNames = (change: Change) =>
  change.kind === 'add campaign' ||
  change.kind === 'add ad group' ||
  (doesWhat(change) === 'neither' && listOf(change) !== undefined);

function rowOf(wanted: Wanted, draftedBy: number, isForced: boolean): NewChange {
  const { change, why, undoes, from, knot } = wanted;
  const makes = listMadeBy(change);
  return {
    ...{ change, why, undoes, draftedBy, fromTerm: from, knot },
    ...(makes && { key: keyOfNewList(makes.listId) }),
    forcedBecause: isForced ? wanted.forcedBecause : null,
  };
}

function holdBack(hits: readonly string[]): DraftOutcome {
  const what = hits.length === 1 ? 'a protected term' : `${hits.length} protected terms`;
  const named = listed(
    hits.slice(0, 3).map((text) => `“${text}”`),
    hits.length,
  );
  return {
    outcome: 'held back',
    said: `Held back: it would stop ${what}, ${named}.`,
    terms: few(hits),
  };
}
