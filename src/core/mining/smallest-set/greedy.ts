import TinyQueue from 'tinyqueue';
import type { Candidates } from './candidates';

/**
 * Chooses, again and again, the candidate that stops the most cost not yet stopped, by a lazy heap: a gain only ever
 * shrinks, so one that is still the largest when it is counted anew is the largest of all.
 * @param chosen candidates that are in already
 * @returns them and the added ones, at most `limit`
 * Source: Minoux 1978, Accelerated greedy algorithms for maximizing submodular set functions.
 */
export function chooseGreedily(
  candidates: Candidates,
  limit: number,
  chosen: readonly number[] = [],
): number[] {
  const { starts, stops, costs } = candidates;
  const isStopped = new Uint8Array(costs.length);
  const take = (j: number) => {
    for (let i = starts[j]!; i < starts[j + 1]!; i++) isStopped[stops[i]!] = 1;
  };
  const gainOf = (j: number) => {
    let gain = 0;
    for (let i = starts[j]!; i < starts[j + 1]!; i++)
      if (isStopped[stops[i]!] === 0) gain += costs[stops[i]!]!;
    return gain;
  };
  const answer = [...chosen];
  for (const j of answer) take(j);
  // Preferred candidates have smaller numbers.
  const queue = new TinyQueue(
    Array.from({ length: candidates.count }, (_, j) => ({ j, gain: gainOf(j) })),
    (a, b) => b.gain - a.gain || a.j - b.j,
  );
  while (answer.length < limit) {
    const next = queue.pop();
    if (!next || next.gain <= 0) break;
    const gain = gainOf(next.j);
    if (gain < next.gain) queue.push({ j: next.j, gain });
    else {
      answer.push(next.j);
      take(next.j);
    }
  }
  return answer;
}

/** Leaves out what stops nothing that the others do not stop, the least preferred first. */
export function withoutNeedless({ starts, stops, costs }: Candidates, chosen: readonly number[]): number[] {
  const times = new Uint32Array(costs.length);
  for (const j of chosen) for (let i = starts[j]!; i < starts[j + 1]!; i++) times[stops[i]!]! += 1;
  const kept = new Set(chosen);
  for (const j of [...chosen].sort((a, b) => b - a)) {
    const own = stops.subarray(starts[j], starts[j + 1]);
    if (own.some((t) => times[t] === 1)) continue;
    kept.delete(j);
    for (const t of own) times[t]! -= 1;
  }
  return chosen.filter((j) => kept.has(j));
}

/** Cost of the terms that some candidates stop together, micro-units. */
export function stoppedCost({ starts, stops, costs }: Candidates, chosen: readonly number[]): number {
  const stopped = new Set<number>();
  for (const j of chosen) for (let i = starts[j]!; i < starts[j + 1]!; i++) stopped.add(stops[i]!);
  let cost = 0;
  for (const t of stopped) cost += costs[t]!;
  return cost;
}
