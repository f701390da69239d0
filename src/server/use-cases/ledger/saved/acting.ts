import { ascending } from 'd3';
import { daysBetween, shiftDay, stopsIn, type Acting, type Window } from '@/core';
import type { InForce } from '../../../repositories/tray/in-force';

/** A change that stops, over periods. */
export type ActingChange = Acting & {
  sent: InForce;
  /** the periods of the days before it was sent, from the first to before the last, and how many days of data they hold */
  before: { first: number; end: number; days: number };
};

/** Days that are counted together, without a gap: the first day of each period, and how many days it has. */
export type Periods = { starts: readonly string[]; days: readonly number[] };

type Stopping = InForce & { before: NonNullable<InForce['before']> };

/**
 * The changes that stop something and after whose day data have come, and the periods over which they are weighed: parted where a
 * week begins, where a change begins or ends to act, and where the days before it begin.
 * @param newest the last day with data
 */
export function layOverPeriods(
  sent: readonly InForce[],
  newest: string,
): { acting: ActingChange[]; periods: Periods } {
  const stopping = sent.filter(
    (one): one is Stopping =>
      one.before !== null && stopsIn(one.change) !== undefined && shiftDay(one.sentDay, 1) <= newest,
  );
  const starts = startsOf(stopping, newest);
  const at = (day: string) => starts.indexOf(day);
  const days = starts.map((day, i) => daysBetween(day, starts[i + 1] ?? shiftDay(newest, 1)));
  const acting = stopping.map((one): ActingChange => {
    const { window, predicted } = one.before;
    const undone = one.undoneDay === null ? Infinity : at(shiftDay(one.undoneDay, 1));
    return {
      ...{ sent: one, from: at(shiftDay(one.sentDay, 1)), until: undone < 0 ? Infinity : undone },
      before: {
        ...rangeOf(window, at, starts.length),
        days: predicted?.days ?? daysBetween(window.from, window.to) + 1,
      },
      toCome: 1,
    };
  });
  return { acting, periods: { starts, days } };
}

function startsOf(stopping: readonly Stopping[], newest: string): string[] {
  const starts = new Set<string>();
  let first = newest;
  for (const { sentDay, undoneDay, before } of stopping) {
    const from = shiftDay(sentDay, 1);
    if (from < first) first = from;
    for (const day of [from, before.window.from, shiftDay(before.window.to, 1)]) starts.add(day);
    if (undoneDay !== null) starts.add(shiftDay(undoneDay, 1));
  }
  for (let day = mondayAfter(first); day <= newest; day = shiftDay(day, 7)) starts.add(day);
  return [...starts].filter((day) => day <= newest).sort(ascending);
}

/** @param all periods: a window that goes beyond the newest day ends with them */
function rangeOf({ from, to }: Window, at: (day: string) => number, all: number) {
  const end = at(shiftDay(to, 1));
  return { first: at(from), end: end < 0 ? all : end };
}

/** The first Monday after a day. */
function mondayAfter(day: string): string {
  return shiftDay(mondayOf(day), 7);
}

/** The Monday of a day's week. */
export function mondayOf(day: string): string {
  const weekday = new Date(`${day}T00:00:00Z`).getUTCDay();
  return shiftDay(day, -((weekday + 6) % 7));
}
