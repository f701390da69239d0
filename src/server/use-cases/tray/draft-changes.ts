import {
  cancels,
  changeKey,
  describeChange,
  keyOfNewList,
  listMadeBy,
  listOf,
  negativesBroughtBy,
  type Change,
  listed,
} from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import { noteOnPlace } from '../../compute/serving';
import { few, protectedBy } from '../../compute/workbench';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { openDraft } from '../../repositories/tray/change-sets';
import { deleteDrafted, insertChanges, type NewChange } from '../../repositories/tray/changes';
import { deleteHangRulesOf } from '../../repositories/lists/hang-rules';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { workOf } from './kinds';
import { refuse, saysNothingNew } from './refuse-change';
import { namesWithMade } from '../names';

/** A change that a person wants, and why. */
export type Wanted = {
  change: Change;
  why?: string | null;
  forcedBecause?: string;
  undoes?: number;
  /** the search term from which a negative is made */
  from?: string;
};

/**
 * Puts changes in the tray, in order. Each is drafted, or cancels its opposite, or is refused or held back with the
 * reason; the others go on. Nothing is sent.
 */
export async function draftChanges(
  deps: Deps,
  slug: string,
  personId: number,
  wanted: readonly Wanted[],
): Promise<DraftOutcome[]> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const setId = await openDraft(trx, id);
    const outcomes: DraftOutcome[] = [];
    /** decided to be drafted and not written yet, each with the outcome that waits for its id */
    let waiting: { outcome: Drafted; drafted: NewChange }[] = [];
    const writeDown = async () => {
      const ids = await insertChanges(
        trx,
        id,
        setId,
        waiting.map((one) => one.drafted),
      );
      waiting.forEach(({ outcome }, i) => (outcome.changeId = ids[i]!));
      waiting = [];
    };
    let open = await openWorkbench(deps, account, undefined, trx);
    let inTray = byKey(open);
    for (const one of wanted) {
      const decided = decideOne({ open, inTray }, personId, one);
      outcomes.push(decided.outcome);
      if (decided.outcome.outcome === 'drafted') {
        if (decided.replaces) await deleteDrafted(trx, id, [idOf(decided.replaces)]);
        waiting.push({ outcome: decided.outcome, drafted: decided.drafted! });
        open.draft.gate.apply(one.change);
        inTray.set(changeKey(one.change), { outcome: decided.outcome, change: one.change });
      }
      const isCancelled = decided.outcome.outcome === 'cancelled';
      if (!isCancelled && !listMadeBy(one.change)) continue;
      await writeDown();
      if (isCancelled) await deleteDrafted(trx, id, [idOf(decided.cancels!)]);
      open = await openWorkbench(deps, account, undefined, trx);
      inTray = byKey(open);
    }
    await writeDown();
    await raiseDecisionVersion(trx, id);
    return outcomes;
  });
}

type Drafted = Extract<DraftOutcome, { outcome: 'drafted' }>;

/** What is in the tray, by what it is about: stored, or decided just now and about to be. */
type InTray = Map<string, Standing>;
type Standing = { change: Change } & ({ id: number; by: string } | { outcome: Drafted });

const idOf = (standing: Standing) => ('id' in standing ? standing.id : standing.outcome.changeId);

function byKey({ drafted }: Open): InTray {
  return new Map(drafted.map(({ id, change, draftedBy: by }) => [changeKey(change), { id, change, by }]));
}

type Decided = {
  outcome: DraftOutcome;
  drafted?: NewChange;
  /** what the change takes out of the tray: its opposite, or itself without a reason */
  cancels?: Standing;
  replaces?: Standing;
};

function decideOne(
  { open, inTray }: { open: Open; inTray: InTray },
  personId: number,
  wanted: Wanted,
): Decided {
  const { change } = wanted;
  const refusal = refuse(open, change);
  if (refusal) return { outcome: { outcome: 'refused', said: refusal } };

  const said = describeChange(change, namesWithMade(open, [change]));
  const same = inTray.get(changeKey(change));
  if (same && cancels(same.change, change)) {
    const was = describeChange(same.change, open.names);
    return {
      outcome: { outcome: 'cancelled', removed: same.change, said: `Taken out of the tray: ${was}.` },
      cancels: same,
    };
  }
  // With a reason, a change that is in the tray without one goes in anew.
  const replaces = same && 'id' in same && wanted.forcedBecause ? same : undefined;
  if (same && !replaces) {
    const said = workOf(change).sameInTray ?? 'This is in the tray already';
    const by = 'by' in same ? `, put in by ${same.by}` : '';
    return { outcome: { outcome: 'already there', said: `${said}${by}.` } };
  }
  const alreadySo = replaces ? null : saysNothingNew(open, change);
  if (alreadySo) return { outcome: { outcome: 'already there', said: alreadySo } };

  const hits = protectedBy(open, negativesBroughtBy(change, open.draft.gate));
  if (hits.length > 0 && !wanted.forcedBecause) {
    const what = hits.length === 1 ? 'a protected term' : `${hits.length} protected terms`;
    return {
      outcome: {
        outcome: 'held back',
        said: `Held back: it would stop ${what}, ${named(hits)}.`,
        terms: few(hits),
      },
    };
  }
  const makes = listMadeBy(change);
  return {
    replaces,
    outcome: { outcome: 'drafted', changeId: 0, change, said, heed: noteOnPlace(open.snapshot, change) },
    drafted: {
      change,
      ...(makes && { key: keyOfNewList(makes.listId) }),
      why: wanted.why,
      forcedBecause: hits.length > 0 ? wanted.forcedBecause : null,
      undoes: wanted.undoes,
      fromTerm: wanted.from,
      draftedBy: personId,
    },
  };
}

function named(texts: readonly string[]): string {
  return listed(
    texts.slice(0, 3).map((text) => `“${text}”`),
    texts.length,
  );
}

/**
 * Takes changes out of the tray, with those that need a list which goes with them.
 * @returns the changes that were taken out, so that they can be put back
 */
export async function removeFromTray(
  deps: Deps,
  slug: string,
  changeIds: readonly number[],
): Promise<Change[]> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const open = await openWorkbench(deps, account, undefined, trx);
    const wanted = new Set(changeIds);
    const chosen = open.drafted.filter((c) => wanted.has(c.id));
    const lists = new Set(chosen.flatMap(({ change }) => listMadeBy(change)?.listId ?? []));
    const gone = open.drafted.filter((c) => wanted.has(c.id) || lists.has(listOf(c.change) ?? ''));
    await deleteDrafted(
      trx,
      id,
      gone.map((c) => c.id),
    );
    await deleteHangRulesOf(trx, id, [...lists]);
    await raiseDecisionVersion(trx, id);
    return gone.map((c) => c.change);
  });
}
