import { group, sum } from 'd3';
import { describeChange, shiftDay } from '@/core';
import type { Days } from '@/contracts/days';
import type { Today } from '@/contracts/today';
import { findEntriesOf } from '../../repositories/ledger';
import type { Deps } from '../deps';
import type { ActingChange } from '../ledger/saved/acting';
import { figuresOf, predictedADay, realOfPart } from '../ledger/saved/figures';
import { reckonOf, type Saved } from '../ledger/saved/reckon';
import { openWorkbench, requireAccount } from '../open-workbench';
import { listEndingWithin, todayOf } from '../tray/end-dates';
import { letterOf } from './letters';

/** Stops are told of so many days before they end. */
const SOON = 14;
/** Trays that are listed. */
const MOST_TRAYS = 6;

/** What flowed by day and what it cost without return, what stopping saved, by tray too, and what ends soon. */
export async function viewToday(deps: Deps, slug: string, days?: Days): Promise<Today> {
  const account = await requireAccount(deps, slug);
  const { snapshot, names } = await openWorkbench(deps, account, days);
  const saved = await reckonOf(deps, account);
  const savedOn = saved ? savedByDay(saved) : new Map<string, number>();
  const ending = await listEndingWithin(deps.db, account, SOON);
  return {
    ...{ window: snapshot.window, today: todayOf(account) },
    days: snapshot.days.map(({ day, costMicros, returnedMicros }) => ({
      ...{ day, returnedMicros, openMicros: costMicros - returnedMicros },
      stoppedMicros: Math.max(0, Math.round(savedOn.get(day) ?? 0)),
    })),
    soFar: saved && soFarOf(saved),
    trays: saved ? await traysOf(deps, account.id, saved) : [],
    ending: ending.map(({ id, change, endsOn }) => ({
      ...{ changeId: id, said: describeChange(change, names), endsOn },
    })),
  };
}

/** Micro-units for each day on which something acts: what a period saved is spread over its days. */
function savedByDay({ periods, partsOf }: Saved): Map<string, number> {
  const byDay = new Map<string, number>();
  for (const part of [...partsOf.values()].flat()) {
    const length = periods.days[part.period]!;
    for (let i = 0; i < length; i++) {
      const day = shiftDay(periods.starts[part.period]!, i);
      byDay.set(day, (byDay.get(day) ?? 0) + realOfPart(part) / length);
    }
  }
  return byDay;
}

function soFarOf(saved: Saved): NonNullable<Today['soFar']> {
  const { changes, periods } = saved;
  const { weeks: _, ...figures } = figuresOf(saved, changes);
  const since = periods.starts[Math.min(...changes.map(({ from }) => from))]!;
  return { ...figures, since, changes: changes.length };
}

async function traysOf(deps: Deps, accountId: number, saved: Saved): Promise<Today['trays']> {
  const trays = [...group(saved.changes, ({ sent }) => sent.setId)]
    .map(([setId, changes], i) => ({ letter: letterOf(i), setId, changes }))
    .slice(-MOST_TRAYS)
    .reverse();
  const firsts = trays.map(({ changes }) => changes[0]!.sent.id);
  const entryOf = await findEntriesOf(deps.db, accountId, firsts);
  return trays.map(({ letter, setId, changes }, i) => {
    const { weeks: _, ...figures } = figuresOf(saved, changes);
    return {
      ...{ letter, setId, sentDay: changes[0]!.sent.sentDay, changes: changes.length, ...figures },
      ...{ entry: entryOf.get(firsts[i]!) ?? null, difference: differenceOf(saved, changes) },
    };
  });
}

/** A difference that is a smaller share of what was predicted than this is none. */
const LITTLE = 0.1;

function differenceOf(saved: Saved, changes: readonly ActingChange[]): Today['trays'][number]['difference'] {
  const known = changes.filter((change) => predictedADay(change) !== null);
  if (known.length === 0) return null;
  const parts = known.flatMap((change) => saved.partsOf.get(change)!);
  const daysOf = ({ from, until }: ActingChange) =>
    sum(saved.periods.days.filter((_, p) => from <= p && p < until));
  const predicted = (of: 'stopped' | 'net') =>
    sum(known, (change) => predictedADay(change)![of] * daysOf(change));
  const traffic = sum(parts, (part) => part.expectedMicros) - predicted('stopped');
  const back = sum(parts, (part) => part.backMicros) - (predicted('stopped') - predicted('net'));
  const still = sum(parts, (part) => part.stillMicros);
  const [most] = (
    [
      [traffic, traffic > 0 ? 'more traffic' : 'less traffic'],
      [back, back > 0 ? 'more came back elsewhere' : 'less came back elsewhere'],
      [still, 'still served there'],
    ] as const
  ).toSorted(([a], [b]) => Math.abs(b) - Math.abs(a));
  const isMuch = Math.abs(most![0]) > LITTLE * Math.abs(predicted('stopped'));
  return isMuch ? most![1] : 'as predicted';
}
