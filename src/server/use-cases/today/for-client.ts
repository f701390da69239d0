import { ascending, descending, group, sum } from 'd3';
import { describeChange, plainAmount, shiftDay, stopsIn, type Window } from '@/core';
import type { Days } from '@/contracts/days';
import type { ForClient } from '@/contracts/for-client';
import { figuresOfTerm, termSums } from '../../compute/term-sums';
import { findTerm } from '../../compute/workbench';
import type { Snapshot } from '../../compute/snapshot';
import { writeWorkbook } from '../../files/write-workbook';
import { listProtectedTerms } from '../../repositories/decisions/protected-terms';
import { loadInForce, type InForce } from '../../repositories/tray/in-force';
import type { Deps } from '../deps';
import { realOfPart } from '../ledger/saved/figures';
import { reckonOf, type Saved } from '../ledger/saved/reckon';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

/**
 * What was done in a range of days, for the advertiser: what was spent and returned, what was stopped and why, what that
 * saved in these days (rules 13.4), and what was kept open.
 */
export async function viewForClient(deps: Deps, slug: string, days?: Days): Promise<ForClient> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, days);
  const { snapshot } = open;
  const { window } = snapshot;
  const savedByDay = await savedIn(deps, open);
  const stops = (await loadInForce(deps.db, account.id)).filter((one) => isTold(one, window));
  const known = (of: ReadonlyMap<string, number> | undefined) => of && Math.round(sum(of.values()));
  const told = stops.map(({ id, change, why, sentDay, undoneDay }) => ({
    ...{ changeId: id, said: describeChange(change, open.names), why, sentDay, until: undoneDay },
    savedMicros: known(savedByDay.get(id)) ?? null,
  }));
  const all = [...savedByDay.values()].flatMap((of) => [...of]);
  const stoppedOn = group(all, ([day]) => day);
  const figures = snapshot.days;
  return {
    window,
    ...sumsOf(snapshot),
    returnedMicros: sum(figures, (day) => day.returnedMicros),
    days: figures.map(({ day, costMicros, returnedMicros }) => ({
      ...{ day, returnedMicros, openMicros: costMicros - returnedMicros },
      stoppedMicros: Math.max(0, Math.round(sum(stoppedOn.get(day) ?? [], ([, micros]) => micros))),
    })),
    savedMicros: all.length === 0 ? null : Math.round(sum(all, ([, micros]) => micros)),
    stops: told.sort(
      (a, b) => descending(a.savedMicros ?? -1, b.savedMicros ?? -1) || ascending(a.sentDay, b.sentDay),
    ),
    kept: await keptIn(deps, open),
  };
}

/** Whether a stop was sent or acted in the window. */
function isTold({ change, sentDay, undoneDay }: InForce, { from, to }: Window): boolean {
  return stopsIn(change) !== undefined && sentDay <= to && (undoneDay === null || undoneDay >= from);
}

/** What each change saved on each day of the window, micro-units; what a period saved is spread over its days. */
async function savedIn(
  deps: Deps,
  { account, snapshot: { window } }: Open,
): Promise<ReadonlyMap<number, ReadonlyMap<string, number>>> {
  const saved = await reckonOf(deps, account);
  return new Map(saved?.changes.map((change) => [change.sent.id, byDay(saved, change, window)]));
}

function byDay({ partsOf, periods }: Saved, change: Saved['changes'][number], { from, to }: Window) {
  const saved = new Map<string, number>();
  for (const part of partsOf.get(change)!) {
    const length = periods.days[part.period]!;
    for (let i = 0; i < length; i++) {
      const day = shiftDay(periods.starts[part.period]!, i);
      if (day >= from && day <= to) saved.set(day, (saved.get(day) ?? 0) + realOfPart(part) / length);
    }
  }
  return saved;
}

function sumsOf(snapshot: Snapshot) {
  const { figures, count } = { figures: termSums(snapshot), count: snapshot.terms.count };
  const totals = { costMicros: figures.costMicros, conversions: 0, valueMicros: 0 };
  for (let t = 0; t < count; t++) {
    const of = figuresOfTerm(figures, t);
    totals.conversions += of.conversions ?? 0;
    totals.valueMicros += of.valueMicros ?? 0;
  }
  return totals;
}

async function keptIn(deps: Deps, { account, snapshot }: Open): Promise<ForClient['kept']> {
  const sums = termSums(snapshot);
  const kept = (await listProtectedTerms(deps.db, account.id)).map(({ text: key, raw, note, by }) => {
    const t = findTerm(snapshot, key);
    const figures = t === undefined ? undefined : figuresOfTerm(sums, t);
    return {
      ...{ text: raw, note, by },
      ...{ costMicros: figures?.costMicros ?? 0, conversions: figures?.conversions ?? 0 },
    };
  });
  return kept.sort((a, b) => descending(a.conversions, b.conversions) || ascending(a.text, b.text));
}

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** The same as a workbook: what was stopped, what was kept, and the days. */
export async function forClientSheet(deps: Deps, slug: string, days?: Days) {
  const { currency, name } = await requireAccount(deps, slug);
  const view = await viewForClient(deps, slug, days);
  const amount = (micros: number | null) => (micros === null ? null : plainAmount(micros, currency));
  const { from, to } = view.window;
  const content = await writeWorkbook([
    {
      name: 'stopped',
      header: ['stopped', 'why', 'from', 'taken back', `saved ${currency}`],
      rows: view.stops.map((one) => [one.said, one.why, one.sentDay, one.until, amount(one.savedMicros)]),
    },
    {
      name: 'kept open',
      header: ['search term', 'why', 'kept by', `cost ${currency}`, 'conversions'],
      rows: view.kept.map((one) => [
        ...[one.text, one.note, one.by, amount(one.costMicros), String(one.conversions)],
      ]),
    },
    {
      name: 'days',
      header: ['day', `returned ${currency}`, `not returned ${currency}`, `stopped, reckoned ${currency}`],
      rows: view.days.map((one) => [
        ...[one.day, amount(one.returnedMicros), amount(one.openMicros), amount(one.stoppedMicros)],
      ]),
    },
  ]);
  return { name: `${name} ${from} to ${to}.xlsx`, type: XLSX, content };
}
