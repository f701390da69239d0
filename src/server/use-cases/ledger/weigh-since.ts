import { ascending, min } from 'd3';
import { daysBetween, rowsActedOn, shiftDay, stopsIn, sumFigures, type Change, type Figures } from '@/core';
import type { Weight } from '@/contracts/common';
import type { LedgerLine } from '@/contracts/ledger';
import { indexOfTerm, rowsOfTerm, type Snapshot } from '../../compute/snapshot';
import { termAt } from '../../compute/window-columns';
import type { Account } from '../../repositories/account/accounts';
import { loadSumsSince, type SumSince } from '../../repositories/facts';
import type { Deps } from '../deps';
import { openSnapshotOf } from '../open-workbench';

const MOST_SLIPS = 12;

type Since = NonNullable<NonNullable<LedgerLine['change']>['since']>;
/** A change that is in force, and the day on which it was sent. That day was served both before and after it. */
export type InForce = { id: number; change: Change; sentDay: string };
const firstWholeDay = ({ sentDay }: InForce) => shiftDay(sentDay, 1);

/**
 * What the terms of changes cost from the day after each was sent: where it acts, and elsewhere. All of them together take one snapshot
 * and one query, however many days they were sent on.
 * @param newest the last day with data
 * @returns by the ids of the changes; one that stops nothing has no entry
 */
export async function weighSince(
  deps: Deps,
  account: Account,
  newest: string,
  changes: readonly InForce[],
): Promise<ReadonlyMap<number, Since>> {
  const stopping = changes
    .filter(({ change }) => stopsIn(change))
    .map((one) => ({ ...one, since: firstWholeDay(one) }))
    .filter(({ since }) => since <= newest);
  const earliest = min(stopping, ({ since }) => since);
  if (earliest === undefined) return new Map();
  const snapshot = await openSnapshotOf(deps, account, { from: firstOfMonth(earliest), to: newest });
  const acting = stopping.map((one) => ({ ...one, ...rowsOf(snapshot, one.change) }));
  const termOf = (r: number) => snapshot.terms.ids[snapshot.rows.termOf[r]!]!;
  const sums = sumsByRow(
    snapshot,
    await loadSumsSince(
      deps.db,
      account.id,
      newest,
      [...new Set(acting.flatMap(({ everywhere }) => everywhere.map(termOf)))],
      [...new Set(stopping.map(({ since }) => since))].sort(ascending),
    ),
  );
  return new Map(
    acting.map(({ id, since, everywhere, here }) => {
      const served = everywhere.flatMap((row) => {
        const figures = sumSince(sums.get(row) ?? [], since);
        return figures ? [{ row, figures }] : [];
      });
      const elsewhere = served.filter(({ row }) => !here.has(row));
      return [
        id,
        {
          days: daysBetween(since, newest) + 1,
          here: weigh(
            snapshot,
            served.filter(({ row }) => here.has(row)),
          ),
          elsewhere: weigh(snapshot, elsewhere),
          slips: describeSlips(snapshot, elsewhere),
        },
      ];
    }),
  );
}

/** The window begins on the first of a month, so that the pages of a ledger share a few snapshots. */
export const firstOfMonth = (day: string) => `${day.slice(0, 8)}01`;

/** Rows on which a change acts: in the whole account, and those of them where it stands. */
function rowsOf({ gate }: Snapshot, change: Change) {
  const here = new Set(rowsActedOn(change, gate));
  return { here, everywhere: rowsActedOn(change, gate, { kind: 'account', id: null }) };
}

/**
 * Row of the snapshot → its sums, by the day from which they count. What a load has brought since the snapshot was made
 * has no row in it, and is left to the next version.
 */
export function sumsByRow(snapshot: Snapshot, sums: readonly SumSince[]): ReadonlyMap<number, SumSince[]> {
  const byRow = new Map<number, SumSince[]>();
  for (const sum of sums) {
    const row = findRow(snapshot, sum);
    if (row !== undefined) byRow.set(row, [...(byRow.get(row) ?? []), sum]);
  }
  return byRow;
}

function findRow(snapshot: Snapshot, { termId, adGroupId, keywordId }: SumSince): number | undefined {
  const t = indexOfTerm(snapshot, termId);
  const { rows } = snapshot;
  return t === undefined
    ? undefined
    : rowsOfTerm(snapshot, t).find((r) => rows.adGroupId[r] === adGroupId && rows.keywordId[r] === keywordId);
}

/** Sums from a day on; undefined where nothing was served since. */
function sumSince(sums: readonly SumSince[], day: string): Figures | undefined {
  const since = sums.filter((sum) => sum.since >= day);
  return since.length === 0 ? undefined : sumFigures(since);
}

type Served = { row: number; figures: Figures };

/** Sums over rows, each term counted once. */
function weigh({ rows }: Snapshot, served: readonly Served[]): Weight {
  const terms = new Set(served.map(({ row }) => rows.termOf[row]!)).size;
  return { terms, ...sumFigures(served.map(({ figures }) => figures)) };
}

function describeSlips(snapshot: Snapshot, elsewhere: readonly Served[]): Since['slips'] {
  const { rows, served, terms } = snapshot;
  const cost = ({ figures }: Served) => figures.costMicros ?? 0;
  const costliest = [...elsewhere].sort((a, b) => cost(b) - cost(a));
  return costliest.slice(0, MOST_SLIPS).map(({ row, figures }) => {
    const adGroup = served.adGroups[served.adGroupOf[row]!]!;
    return {
      text: termAt(terms, rows.termOf[row]!).raw,
      adGroup: snapshot.adGroup.get(adGroup.id)?.name ?? '',
      campaign: snapshot.campaign.get(adGroup.campaignId)?.name ?? '',
      clicks: figures.clicks,
      costMicros: figures.costMicros,
    };
  });
}
