/** One line of the table: a task, our time, and what it is held against. */
export type Line = {
  task: string;
  size: string;
  ours: string;
  against: string;
  ratio: string;
  verdict: string;
};

export function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}

/** @param q 0..1 */
export function quantile(values: readonly number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN;
}

/** Times several works in turn, so that a slow moment of the machine falls on all of them. @returns medians, ms */
export function interleaved(works: readonly (() => void)[], repeats: number): number[] {
  const times = works.map(() => [] as number[]);
  for (let i = 0; i < repeats; i++) {
    works.forEach((work, w) => {
      const start = performance.now();
      work();
      times[w]!.push(performance.now() - start);
    });
  }
  return times.map(median);
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
