import { covers, daysBetween, inverse, normalise, rowsActedOn, stopsIn, type Change } from '@/core';
import type { BesideFigures } from '@/contracts/common';
import type { LedgerLine, LedgerPage, LedgerQuery } from '@/contracts/ledger';
import { besideFigures, weighRows } from '../../compute/workbench';
import type { Snapshot } from '../../compute/snapshot';
import {
  listLedger,
  listNegativesOfChanges,
  type LedgerEntry,
  type LedgerFilter,
} from '../../repositories/ledger';
import { findDataDays } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { openSnapshotOf, requireAccount } from '../open-workbench';
import { weighSince, type InForce } from './weigh-since';

const PAGE = 50;

/** A page of the ledger, newest first. Each sent change comes with what its terms cost before and since. */
export async function viewLedger(
  deps: Deps,
  slug: string,
  asked: Partial<LedgerQuery> = {},
): Promise<LedgerPage> {
  const account = await requireAccount(deps, slug);
  const entries = await listLedger(deps.db, account.id, PAGE + 1, await filterOf(deps, account.id, asked));
  const newest = (await findDataDays(deps.db, account.id))?.to ?? null;
  const page = entries.slice(0, PAGE);
  const beside = asked.beside !== undefined && {
    now: await openSnapshotOf(deps, account, asked.days ?? account.windowDays),
    then: await openSnapshotOf(deps, account, asked.beside),
  };
  const since = newest === null ? null : await weighSince(deps, account, newest, inForceOf(page, newest));
  return {
    lines: page.map((entry) => toLine(entry, beside, since?.get(entry.change?.id ?? 0) ?? null)),
    next: entries.length > PAGE ? page.at(-1)!.id : null,
  };
}

async function filterOf(
  deps: Deps,
  accountId: number,
  { before, about, find, who, on, term }: Partial<LedgerQuery>,
): Promise<LedgerFilter> {
  const touches = [...(on === undefined ? [] : [on])];
  if (term !== undefined && on === undefined) touches.push(...(await touchedByTerm(deps, accountId, term)));
  return {
    ...(before !== undefined && { before }),
    ...(about !== undefined && { about }),
    ...(find !== undefined && { find }),
    ...(who !== undefined && { doneBy: who === 'nobody' || who === 'rules' ? who : Number(who) }),
    ...((on !== undefined || term !== undefined) && { touches }),
  };
}

/** What entries about a search term touch: the term itself, and every negative that would stop it (rules 3). */
async function touchedByTerm(deps: Deps, accountId: number, term: string): Promise<string[]> {
  const text = normalise(term);
  const negatives = await listNegativesOfChanges(deps.db, accountId);
  const stopping = negatives.filter((negative) => covers(negative, { text, match: 'exact' }));
  return [`term:${text}`, ...stopping.map((one) => `${one.match}:${one.text}`)];
}

/** The changes of a page that act, or are said to, and after whose day of sending data have come. */
function inForceOf(page: readonly LedgerEntry[], newest: string): InForce[] {
  return page.flatMap(({ change }) =>
    change && newest > change.sentDay && (change.state === 'there' || change.state === 'said')
      ? [change]
      : [],
  );
}

function toLine(
  entry: LedgerEntry,
  beside: { now: Snapshot; then: Snapshot } | false,
  since: NonNullable<LedgerLine['change']>['since'],
): LedgerLine {
  const { id, at, who, about, what, why, change, isUndone } = entry;
  const line = { id, at, who, about, what, why, canUndo: entry.undo !== null && !isUndone, isUndone };
  if (!change) return { ...line, change: null };
  const { before, sentDay } = change;
  return {
    ...line,
    change: {
      id: change.id,
      state: change.state,
      undo: inverse(change.change),
      undoneBy: change.undoneBy,
      sentDay,
      before: before && {
        days: daysBetween(before.window.from, before.window.to) + 1,
        terms: before.terms,
        figures: before.figures,
      },
      beside:
        beside && stopsIn(change.change)
          ? { now: actedOn(beside.now, change.change), then: actedOn(beside.then, change.change) }
          : null,
      since,
    },
  };
}

/** What the terms of a change did where it acts. */
function actedOn(snapshot: Snapshot, change: Change): BesideFigures {
  return besideFigures(weighRows(snapshot, rowsActedOn(change, snapshot.gate)));
}
