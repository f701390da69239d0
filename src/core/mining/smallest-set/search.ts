import type { Candidates } from './candidates';
import { stoppedCost } from './greedy';

/** Looks at no more sets than this; small questions are answered for certain within it. */
const MOST_LOOKS = 30_000;
const MOST_CANDIDATES = 400;

/**
 * Looks through all sets of at most `limit` candidates, leaving out those that can't beat the best one known.
 * @returns the best set by rules 9.1, and whether it is certain that there is none better; null where the question is
 *   too large to begin
 */
export function searchAll(
  candidates: Candidates,
  limit: number,
  start: readonly number[],
): { chosen: number[]; isCertain: boolean } | null {
  const { count, starts, stops, costs } = candidates;
  if (count > MOST_CANDIDATES) return null;
  const times = new Uint32Array(costs.length);
  let best = { chosen: [...start], rank: rankOf(candidates, start) };
  let looks = 0;

  /** What each candidate would stop beyond what is chosen so far, the most first. */
  function gainsOf(free: readonly number[]): { j: number; gain: number }[] {
    const gains: { j: number; gain: number }[] = [];
    for (const j of free) {
      let gain = 0;
      for (let i = starts[j]!; i < starts[j + 1]!; i++) if (times[stops[i]!] === 0) gain += costs[stops[i]!]!;
      if (gain > 0) gains.push({ j, gain });
    }
    return gains.sort((a, b) => b.gain - a.gain || a.j - b.j);
  }

  /** @param free candidates that may still be chosen: each is either taken here, or in none of what follows */
  function look(chosen: number[], cost: number, free: readonly number[]) {
    if (++looks > MOST_LOOKS) return;
    const rank = rankOf(candidates, chosen);
    if (compareRanks(rank, best.rank) < 0) best = { chosen: [...chosen], rank };
    if (chosen.length >= limit) return;
    const gains = gainsOf(free);
    let rest = gains.map(({ j }) => j);
    for (const [at, { j }] of gains.entries()) {
      const reachable = gains
        .slice(at, at + limit - chosen.length)
        .reduce((most, { gain }) => most + gain, cost);
      if (reachable < best.rank.cost) return;
      rest = rest.slice(1);
      for (let i = starts[j]!; i < starts[j + 1]!; i++) times[stops[i]!]! += 1;
      look([...chosen, j], cost + gains[at]!.gain, rest);
      for (let i = starts[j]!; i < starts[j + 1]!; i++) times[stops[i]!]! -= 1;
    }
  }

  look([], 0, [...Array(count).keys()]);
  return { chosen: best.chosen, isCertain: looks <= MOST_LOOKS };
}

type Rank = { cost: number; negatives: number; words: number; characters: number; phrases: number };

function rankOf(candidates: Candidates, chosen: readonly number[]): Rank {
  const rank = {
    cost: stoppedCost(candidates, chosen),
    negatives: chosen.length,
    words: 0,
    characters: 0,
    phrases: 0,
  };
  for (const j of chosen) {
    rank.words += candidates.words[j]!;
    rank.characters += candidates.characters[j]!;
    rank.phrases += 1 - candidates.isExact[j]!;
  }
  return rank;
}

/** Negative when `a` is better (rules 9.1). */
function compareRanks(a: Rank, b: Rank): number {
  return (
    b.cost - a.cost ||
    a.negatives - b.negatives ||
    a.words - b.words ||
    a.characters - b.characters ||
    a.phrases - b.phrases
  );
}
