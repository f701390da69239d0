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

/** How long something took in each round, ms. */
export type Times = readonly number[];

/**
 * Times several works in turn, forwards and backwards: a slow moment of the machine falls on all of them, and none
 * always comes after the same. The first round warms up and is not counted.
 */
export async function interleaved<W extends Works>(
  works: W,
  repeats: number,
): Promise<Record<keyof W, Times>> {
  const all = Object.entries(works);
  const times = new Map(all.map(([name]) => [name, [] as number[]]));
  for (let i = 0; i <= repeats; i++) {
    for (const [name, work] of i % 2 === 0 ? all : all.toReversed()) {
      const took = await timedOnce(work);
      if (i > 0) times.get(name)!.push(took);
    }
  }
  return Object.fromEntries(times) as Record<string, Times> as Record<keyof W, Times>;
}

/** How long a peer takes that is too slow to be asked often, ms. */
export async function timedOnce(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
export const count = (value: number) => value.toLocaleString('en');

/**
 * Our time against others: the median of the ratios of each round, whose works met the same mood of the machine, or the
 * ratio of medians where rounds differ in number. `share` is the part of the work that a slow peer was given.
 */
export function against(
  task: string,
  size: string,
  ours: Times,
  peers: Record<string, Times | { times: Times; share: number }>,
): Line[] {
  return Object.entries(peers).map(([name, peer]): Line => {
    const [times, share] = 'share' in peer ? [peer.times, peer.share] : [peer, 1];
    const part = share < 1 ? ` (on 1/${Math.round(1 / share)})` : '';
    const rounds = times.length === ours.length ? ours.map((own, i) => own / times[i]!) : [];
    const ratio = share * (rounds.length > 0 ? median(rounds) : median(ours) / median(times));
    return {
      ...{ task, size, ours: ms(median(ours)), against: `${name}${part}: ${ms(median(times) / share)}` },
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
