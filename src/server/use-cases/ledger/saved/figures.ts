import { rollups, sum } from 'd3';
import { likelyRange, type SavedPart } from '@/core';
import type { SavedFigures } from '@/contracts/saved';
import { mondayOf, type ActingChange } from './acting';
import type { Saved } from './reckon';

/** Of some changes together, by week. */
export function figuresOf({ partsOf, periods }: Saved, some: readonly ActingChange[]): SavedFigures {
  const parts = some.flatMap((change) => partsOf.get(change)!);
  const realOf = new Map(
    rollups(
      parts,
      (of) => sum(of, realOfPart),
      ({ period }) => period,
    ),
  );
  const acts = periods.days.map((_, p) => some.filter(({ from, until }) => from <= p && p < until));
  const predicted = acts.map((of, p) => {
    const known = of.flatMap((change) => predictedADay(change) ?? []);
    return known.length === 0 ? null : sum(known, ({ net }) => net) * periods.days[p]!;
  });
  const counted = [...acts.keys()].filter((p) => acts[p]!.length > 0);
  const figures = (of: readonly number[]) => {
    const known = of.flatMap((p) => predicted[p] ?? []);
    return {
      days: sum(of, (p) => periods.days[p]!),
      predictedMicros: known.length === 0 ? null : Math.round(sum(known)),
      realMicros: Math.round(sum(of, (p) => realOf.get(p) ?? 0)),
    };
  };
  const weekOf = (p: number) => mondayOf(periods.starts[p]!);
  return {
    ...figures(counted),
    weeks: rollups(counted, (of) => ({ from: periods.starts[of[0]!]!, ...figures(of) }), weekOf).map(
      ([, week]) => week,
    ),
  };
}

/** Micro-units. */
export const realOfPart = ({ expectedMicros, stillMicros, backMicros }: SavedPart<ActingChange>) =>
  expectedMicros - stillMicros - backMicros;

/** What was predicted when a change was sent, a day; null where nothing was. */
export function predictedADay({ sent }: ActingChange): { stopped: number; net: number } | null {
  const predicted = sent.before?.predicted;
  if (!predicted) return null;
  return {
    stopped: predicted.stoppedMicros / predicted.days,
    net: predicted.netMicros / predicted.days,
  };
}

/** Between what amounts the net of a change lies in nine cases of ten, over so many days; null where nothing was predicted. */
export function likelyOf({ sent }: ActingChange, days: number): [number, number] | null {
  const predicted = sent.before?.predicted;
  if (!predicted) return null;
  const stretch = days / predicted.days;
  return likelyRange(predicted.netMicros * stretch, predicted.variance, stretch);
}
