/** One line of the table: a task, our time, and what it is held against. */
export type Line = {
  task: string;
  size: string;
  ours: string;
  against: string;
  /** our time / theirs */
  ratio: string;
  /** for what has a limit of its own */
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

type Works = Record<string, () => unknown>;

/**
 * Times several works in turn, forwards and backwards: a slow moment of the machine falls on all of them, and none
 * always comes after the same.
 * @returns medians, ms
 */
export async function interleaved<W extends Works>(
  works: W,
  repeats: number,
): Promise<Record<keyof W, number>> {
  const all = Object.entries(works);
  const times = new Map(all.map(([name]) => [name, [] as number[]]));
  for (let i = 0; i <= repeats; i++) {
    for (const [name, work] of i % 2 === 0 ? all : all.toReversed()) {
      const took = await timedOnce(work);
      if (i > 0) times.get(name)!.push(took); // the first round warms up
    }
  }
  return Object.fromEntries([...times].map(([name, of]) => [name, median(of)])) as Record<keyof W, number>;
}

/** How long a peer takes that is too slow to be asked often, ms. */
export async function timedOnce(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
export const count = (value: number) => value.toLocaleString('en');

/** Our time against others; `share` is the part of the work that a slow peer was given. */
export function against(
  task: string,
  size: string,
  ours: number,
  peers: Record<string, number | { ms: number; share: number }>,
): Line[] {
  return Object.entries(peers).map(([name, peer]): Line => {
    const time = typeof peer === 'number' ? peer : peer.ms / peer.share;
    const part = typeof peer === 'number' ? '' : ` (on 1/${Math.round(1 / peer.share)})`;
    const ratio = ours / time;
    return {
      ...{ task, size, ours: ms(ours), against: `${name}${part}: ${ms(time)}` },
      ...{ ratio: ratio < 0.01 ? ratio.toPrecision(2) : ratio.toFixed(2), verdict: '' },
    };
  });
}

/** @throws Error when two answers to the same task differ */
export function mustAgree(task: string, ...answers: unknown[]): void {
  const [first, ...others] = answers.map((answer) => JSON.stringify(answer));
  for (const other of others) {
    if (other !== first)
      throw new Error(`${task}: two answers differ: ${first!.slice(0, 200)} and ${other!.slice(0, 200)}`);
  }
}
