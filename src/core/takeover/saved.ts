/** A change that stops rows, over periods: it acts from the first of them to before another. */
export type Acting = {
  from: number;
  /** Infinity while nobody took it back */
  until: number;
  /** what a row costs in days to come, as a share of what it cost before (rules 13.2) */
  toCome: number;
};

/** A term in one place, over periods; costs in micro-units. */
export type PlayedRow<Change extends Acting = Acting> = {
  /** by period */
  costMicros: ArrayLike<number>;
  /** a day, in the days before a change acted */
  before(change: Change): number;
  /** what runs in its place in a period, as a multiple of what ran there before a change acted */
  traffic(change: Change, period: number): number;
};

/** The change by which a row is stopped. A row is stopped by one change at a time. */
export type Stopping<Change extends Acting = Acting> = { row: number; change: Change };

/** Of one change in one period; micro-units. It saved what was expected, less what is still served, less what came back. */
export type SavedPart<Change extends Acting = Acting> = {
  change: Change;
  period: number;
  /** what its rows would have cost */
  expectedMicros: number;
  /** what they cost all the same */
  stillMicros: number;
  /** what their term costs in other places beyond what it would have cost there; below 0 where it is less */
  backMicros: number;
};

/** What comes back is a part of what was stopped; what is counted beyond these multiples of it is chance. */
const BACK = { least: -1, most: 2 };

/**
 * What stopping the rows of one term saved (rules 13.4). What it costs elsewhere is laid to the changes that began to act last; for those
 * before them what came back stays in the proportion that it had until then.
 * @param days of each period
 * @param rows all places of the term
 * @param stopping its rows that are stopped at some time
 * @returns by period; one for each change that acts in it
 * @example reckonSaved([7], [{ costMicros: [0], before: () => 2, traffic: () => 0.5 }], [{ row: 0, change: { from: 0, until: Infinity, toCome: 1 } }]).map((part) => part.expectedMicros) // [7]
 */
export function reckonSaved<Change extends Acting>(
  days: readonly number[],
  rows: readonly PlayedRow<Change>[],
  stopping: readonly Stopping<Change>[],
): SavedPart<Change>[] {
  const saved: SavedPart<Change>[] = [];
  const waves = wavesOf(stopping);
  for (let period = waves[0]?.from ?? days.length; period < days.length; period++) {
    const acting = waves
      .map((wave) => ({ wave, parts: partsOf(wave, rows, days[period]!, period) }))
      .filter(({ parts }) => parts.length > 0);
    const last = acting.at(-1);
    if (!last) continue;
    const stopped = new Set(stopping.filter(({ change }) => isActing(change, period)).map(({ row }) => row));
    const open = rows.filter((_, r) => !stopped.has(r));
    const measured = measureBack(last.wave, open, last.parts, days[period]!);
    for (const { wave, parts } of acting) {
      const expected = expectedOf(parts);
      const usual = wave.expected > 0 ? (wave.back / wave.expected) * expected : 0;
      const back = wave === last.wave ? measured : usual;
      for (const part of parts) {
        const share = expected > 0 ? part.expectedMicros / expected : 1 / parts.length;
        saved.push({ ...part, backMicros: back * share });
      }
    }
  }
  return saved;
}

/** Changes that began to act on a term at once, and what was measured while they were the last; micro-units. */
type Wave<Change extends Acting> = {
  from: number;
  stopping: Stopping<Change>[];
  expected: number;
  back: number;
  /** the same, not bounded */
  counted: number;
};
type Part<Change extends Acting> = Omit<SavedPart<Change>, 'backMicros'>;

function wavesOf<Change extends Acting>(stopping: readonly Stopping<Change>[]): Wave<Change>[] {
  const waves = new Map<number, Wave<Change>>();
  for (const one of stopping) {
    const { from } = one.change;
    const wave = waves.get(from);
    if (wave) wave.stopping.push(one);
    else waves.set(from, { from, stopping: [one], expected: 0, back: 0, counted: 0 });
  }
  return [...waves.values()].sort((a, b) => a.from - b.from);
}

const isActing = ({ from, until }: Acting, period: number) => from <= period && period < until;
const expectedOf = (parts: readonly { expectedMicros: number }[]) =>
  parts.reduce((sum, { expectedMicros }) => sum + expectedMicros, 0);

function partsOf<Change extends Acting>(
  { stopping }: Wave<Change>,
  rows: readonly PlayedRow<Change>[],
  days: number,
  period: number,
): Part<Change>[] {
  const parts = new Map<Change, Part<Change>>();
  for (const { row, change } of stopping) {
    if (!isActing(change, period)) continue;
    const played = rows[row]!;
    let part = parts.get(change);
    if (!part) parts.set(change, (part = { change, period, expectedMicros: 0, stillMicros: 0 }));
    part.expectedMicros += costOf(played, change, period, days) * change.toCome;
    part.stillMicros += played.costMicros[period]!;
  }
  return [...parts.values()];
}

/**
 * Counts what came back in a period, bounded over all periods so far: what a term costs elsewhere beyond what it cost there. Whoever
 * stops what was costliest somewhere stops what was lucky there and unlucky elsewhere; over all places together that evens out.
 * @param parts of the wave, one at least
 */
function measureBack<Change extends Acting>(
  wave: Wave<Change>,
  open: readonly PlayedRow<Change>[],
  parts: readonly Part<Change>[],
  days: number,
): number {
  const { change, period } = parts[0]!;
  for (const row of open) wave.counted += row.costMicros[period]! - costOf(row, change, period, days);
  wave.expected += expectedOf(parts);
  const before = wave.back;
  wave.back = Math.min(BACK.most * wave.expected, Math.max(BACK.least * wave.expected, wave.counted));
  return wave.back - before;
}

/** What a row would cost in a period as it did before, by the traffic of its place. */
function costOf<Change extends Acting>(
  row: PlayedRow<Change>,
  change: Change,
  period: number,
  days: number,
): number {
  return row.before(change) * row.traffic(change, period) * days;
}

/** Impressions before a change acted, and in a period after it; each a day. */
export type Traffic = { before: number; since: number };

/** With fewer impressions before than that, a place is too small to tell how its traffic changed. */
const LEAST_IMPRESSIONS = 1_000;

/**
 * The traffic of a place as a multiple of what it was: by what runs there and nothing stops, or by all of the account where that is little.
 * @param impressions of the place before, all days together
 * @example trafficChange({ before: 10, since: 12, impressions: 90 }, { before: 400, since: 200 }) // 0.5
 */
export function trafficChange(place: Traffic & { impressions: number }, account: Traffic): number {
  const { before, since } = place.impressions >= LEAST_IMPRESSIONS ? place : account;
  return before > 0 ? since / before : 1;
}
