import { group, sum } from 'd3';
import { shiftDay } from '@/core';
import type { SavedOfToday } from '@/contracts/today';
import { findEntriesOf } from '../../repositories/ledger';
import type { Deps } from '../deps';
import type { ActingChange } from '../ledger/saved/acting';
import { figuresOf, predictedADay, realOfPart } from '../ledger/saved/figures';
import { reckonOf, type Saved } from '../ledger/saved/reckon';
import { requireAccount } from '../open-workbench';
import { letterOf } from './letters';

/** Trays that are listed. */
const MOST_TRAYS = 6;

/** What stopping saved so far, by day and by tray (rules 13.4). */
export async function viewSavedOfToday(deps: Deps, slug: string): Promise<SavedOfToday> {
  const account = await requireAccount(deps, slug);
  const saved = await reckonOf(deps, account);
  if (!saved) return { soFar: null, trays: [], days: [] };
  return {
    soFar: soFarOf(saved),
    trays: await traysOf(deps, account.id, saved),
    days: [...savedByDay(saved)].map(([day, micros]) => ({
      ...{ day, stoppedMicros: Math.max(0, Math.round(micros)) },
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

function soFarOf(saved: Saved): NonNullable<SavedOfToday['soFar']> {
  const { changes, periods } = saved;
  const { weeks: _, ...figures } = figuresOf(saved, changes);
  const since = periods.starts[Math.min(...changes.map(({ from }) => from))]!;
  return { ...figures, since, changes: changes.length };
}

async function traysOf(deps: Deps, accountId: number, saved: Saved): Promise<SavedOfToday['trays']> {
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

/** The greatest part of the difference between what was predicted and what came; null where nothing was predicted. */
function differenceOf(
  saved: Saved,
  changes: readonly ActingChange[],
): SavedOfToday['trays'][number]['difference'] {
  const known = changes.filter((change) => predictedADay(change) !== null);
  if (known.length === 0) return null;
  const parts = known.flatMap((change) => saved.partsOf.get(change)!);
  const daysOf = ({ from, until }: ActingChange) =>
    sum(saved.periods.days.filter((_, p) => from <= p && p < until));
  const predicted = (of: 'stopped' | 'net') =>
    sum(known, (change) => predictedADay(change)![of] * daysOf(change));
  const net = predicted('net');
  if (Math.abs(sum(parts, realOfPart) - net) <= LITTLE * Math.abs(net)) return 'as predicted';
  const traffic = sum(parts, (part) => part.expectedMicros) - predicted('stopped');
  const back = sum(parts, (part) => part.backMicros) - (predicted('stopped') - net);
  const still = sum(parts, (part) => part.stillMicros);
  const sizes = [
    { size: traffic, says: traffic > 0 ? 'more traffic' : 'less traffic' },
    { size: back, says: back > 0 ? 'more came back elsewhere' : 'less came back elsewhere' },
    { size: still, says: 'still served there' },
  ] as const;
  return sizes.reduce((most, one) => (Math.abs(one.size) > Math.abs(most.size) ? one : most)).says;
}
