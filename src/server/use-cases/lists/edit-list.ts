import {
  describeChange,
  describePlace,
  effectOfDraft,
  findUnlike,
  listOf,
  negativesBroughtBy,
  roomAfter,
  type Change,
  type Place,
} from '@/core';
import { sayCouldDrop } from '@/contracts/tray';
import type { EditOutcome, EditPlan, ListEdit } from '@/contracts/list-edits';
import type { Touched } from '@/contracts/common';
import { reachOfEntry } from '../../compute/lists/list-reach';
import { servingRows } from '../../compute/serving';
import { few, keywordsThatConverted, protectedBy, touchedKeywords, weighRows } from '../../compute/workbench';
import { settleListVersion } from '../../repositories/lists/list-versions';
import type { Deps } from '../deps';
import { draftChanges } from '../tray/draft-changes';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { planEdit } from './plan/plan-edit';
import type { Planned } from './plan/planned';
import { campaignsOf } from './view-lists';
import { namesWithMade } from '../names';

const MOST_SAID = 6;
const MOST_LINES = 200;

/** What an edit would do, before anything is put in the tray. */
export async function previewEdit(deps: Deps, slug: string, edit: ListEdit): Promise<EditPlan> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const planned = await planEdit(deps, open, edit);
  const { changes } = planned;
  const { gate, stopped, reopened } = effectOfDraft(open.draft.gate, changes);
  const names = namesWithMade(open, changes);
  const over = roomAfter(gate, changes, open.account.limits).filter(({ used, most }) => used > most);
  return {
    said: planned.said,
    changes: changes.length,
    some: changes.slice(0, MOST_SAID).map((change) => describeChange(change, names)),
    refused: first(planned.refused ?? []),
    twice: planned.twice ?? 0,
    already: planned.already ?? 0,
    folded: first(planned.folded ?? []),
    stops: weighRows(open.snapshot, servingRows(open.snapshot, stopped)),
    reopens: weighRows(open.snapshot, servingRows(open.snapshot, reopened)),
    touched: touchedByAll(open, gate, changes, stopped),
    protectedTerms: few(protectedBy(open, bringing(gate, changes))),
    reaches: reachesOfAll(open, gate, changes, planned.about),
    over: over.map(
      ({ what, place, used, most, couldDrop }) =>
        `${describePlace(place, names)} would hold ${used} ${what}; its limit is ${most}.${sayCouldDrop(few(couldDrop))}`,
    ),
    proof: planned.keepsAnswers ? prove(open, gate) : null,
  };
}

function first<T>(all: readonly T[]) {
  return { count: all.length, first: all.slice(0, MOST_LINES) };
}

type Gate = ReturnType<Open['draft']['gate']['fork']>;

/** The negatives that changes bring. Those of a list count once, however often it is hung. */
function bringing(gate: Gate, changes: readonly Change[]) {
  const hung = new Set<string>();
  return changes.flatMap((change) => {
    if (change.kind === 'hang list') {
      if (hung.has(change.listId)) return [];
      hung.add(change.listId);
    }
    return negativesBroughtBy(change, gate);
  });
}

/** Live keywords that changes touch where they bring negatives into force. */
function touchedByAll(
  open: Open,
  gate: Gate,
  changes: readonly Change[],
  stopped: readonly number[],
): Touched {
  const before = open.draft.gate;
  const byText = changes.flatMap((change) => {
    const place: Place | undefined =
      change.kind === 'add negative'
        ? change.place
        : change.kind === 'hang list'
          ? { kind: 'list', id: change.listId }
          : undefined;
    if (!place) return [];
    return negativesBroughtBy(change, gate)
      .flatMap((entry) => reachOfEntry(open, entry).keywords)
      .filter(
        ({ keyword }) => gate.isWithin(place, keyword.adGroup) && !isStoppedAlready(open, before, keyword),
      );
  });
  const everywhere: Place = { kind: 'account', id: null };
  return touchedKeywords(open, gate, byText, everywhere, keywordsThatConverted(open.snapshot, stopped));
}

/** Whether a keyword's own text was stopped before. Such a keyword is not touched anew. */
function isStoppedAlready(
  open: Open,
  gate: Gate,
  { text, adGroup }: { text: string; adGroup: { id: string; campaignId: string } },
): boolean {
  return open.snapshot.accountGate
    .matching(text)
    .map((id) => open.snapshot.negative.get(id)!)
    .some((negative) => gate.holds(negative, negative.place) && gate.isWithin(negative.place, adGroup));
}

function reachesOfAll(
  open: Open,
  gate: Gate,
  changes: readonly Change[],
  about: string | undefined,
): EditPlan['reaches'] {
  const lists = new Set([...(about ? [about] : []), ...changes.flatMap((change) => listOf(change) ?? [])]);
  const hungOn = [...lists].flatMap((id) => [open.draft.gate.hungOn(id), gate.hungOn(id)]);
  const everywhere = hungOn.includes('account');
  const on = new Set(hungOn.flatMap((hung) => (hung === 'account' ? [] : hung)));
  return {
    everywhere,
    campaigns: campaignsOf(open.snapshot).flatMap(({ id, name }) => (everywhere || on.has(id) ? [name] : [])),
  };
}

/**
 * Compares what is in force in each ad group before and after (rules 3.1). Where both are the same, every gate answers
 * as before.
 */
function prove(open: Open, after: Gate): EditPlan['proof'] {
  const before = open.draft.gate.shape();
  const adGroups = before.campaigns.reduce((sum, c) => sum + c.adGroups.length, 0);
  const unlike = findUnlike(before, after.shape());
  if (!unlike)
    return { adGroups, same: true, said: 'What is in force is the same in each of them, before and after.' };
  const { adGroupId, negative, side } = unlike;
  const what = `“${negative.text}” (${negative.match})`;
  const where = open.names.adGroup(adGroupId) ?? adGroupId;
  return {
    ...{ adGroups, same: false },
    said:
      side === 'before'
        ? `${what} would act no more in ${where}.`
        : `${what} would act in ${where}, where it did not.`,
  };
}

/** Puts an edit in the tray. An edit that undoes what somebody else changed settles that version. */
export async function draftEdit(
  deps: Deps,
  slug: string,
  personId: number,
  edit: ListEdit,
  forcedBecause?: string,
): Promise<EditOutcome> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account);
  const planned: Planned = await planEdit(deps, open, edit);
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    planned.changes.map((change) => ({ change, why: planned.why, forcedBecause })),
  );
  const of = <O extends (typeof outcomes)[number]['outcome']>(kind: O) =>
    outcomes.filter((o): o is Extract<(typeof outcomes)[number], { outcome: O }> => o.outcome === kind);
  const [heldBack, refused] = [of('held back'), of('refused')];
  // What could not all be put in is not settled: it is tried again, with a reason perhaps.
  if (planned.undoesVersion !== undefined && heldBack.length + refused.length === 0)
    await settleListVersion(deps.db, account.id, planned.undoesVersion, 'undone');
  return {
    changeIds: of('drafted').map((o) => o.changeId),
    said: `${planned.said}: in the tray`,
    heldBack: heldBack.length > 0 ? { count: heldBack.length, said: heldBack[0]!.said } : null,
    refused: few(refused.map((o) => o.said)),
  };
}
