import { sum } from 'd3';
import { offerVariants } from '@/core';
import type { SavedOfChange } from '@/contracts/saved';
import { rowsOfTerm } from '../../../compute/snapshot';
import { termAt } from '../../../compute/window-columns';
import type { Account } from '../../../repositories/account/accounts';
import { loadSumsSince } from '../../../repositories/facts';
import type { Deps } from '../../deps';
import { vocabularyOf } from '../../sift/offer-variants';
import { sumsByRow } from '../weigh-since';
import type { ActingChange } from './acting';
import type { Saved } from './reckon';

const MOST_NAMED = 4;
type OtherForms = SavedOfChange['otherForms'];

/** What variants of a negative's words cost at its place since it acts, and in as many days before (rules 8). */
export async function otherFormsOf(
  deps: Deps,
  account: Account,
  { snapshot, periods, newest }: Saved,
  { sent: { change }, from, until, before }: ActingChange,
): Promise<OtherForms> {
  if (change.kind !== 'add negative') return { costMicros: 0, beforeMicros: 0, first: [] };
  const { text, match, place } = change;
  const none = new Float64Array(snapshot.terms.count);
  const offers = offerVariants({ text, match }, snapshot.served.table, none, vocabularyOf(snapshot));
  const terms = [...new Set(offers.flatMap((offer) => offer.terms))];
  const inside = new Set(
    snapshot.gate.within(
      terms.flatMap((t) => rowsOfTerm(snapshot, t)),
      place,
    ),
  );
  const ids = terms.map((t) => snapshot.terms.ids[t]!);
  const sums = sumsByRow(
    snapshot,
    await loadSumsSince(deps.db, account.id, newest, ids, periods.starts.slice(before.first)),
  );
  const since = new Map<number, number>();
  let beforeMicros = 0;
  for (const [row, of] of sums) {
    if (!inside.has(row)) continue;
    const t = snapshot.rows.termOf[row]!;
    for (const { since: day, costMicros } of of) {
      const period = periods.starts.indexOf(day);
      if (period >= from && period < until) since.set(t, (since.get(t) ?? 0) + (costMicros ?? 0));
      if (period < before.end) beforeMicros += costMicros ?? 0;
    }
  }
  const days = sum(periods.days.slice(from, until === Infinity ? undefined : until));
  const named = [...since].filter(([, cost]) => cost > 0).sort((a, b) => b[1] - a[1]);
  return {
    costMicros: sum(named, ([, cost]) => cost),
    beforeMicros: Math.round((beforeMicros * days) / before.days),
    first: named
      .slice(0, MOST_NAMED)
      .map(([t, costMicros]) => ({ text: termAt(snapshot.terms, t).raw, costMicros })),
  };
}
