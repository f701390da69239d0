import TinyQueue from 'tinyqueue';
import { compileGate, type NegativeText } from '../../gate';
import { normalise } from '../../text';
import { makeCandidates, type Candidates } from './candidates';

export type LastingSet = {
  /** the most worth first */
  negatives: NegativeText[];
  /** how a set does on what it was chosen without */
  heldBack: HeldBack;
};

/** Texts that a set was chosen without, and those of them that it would have stopped; costs in micro-units. */
export type HeldBack = {
  unwanted: { texts: number; costMicros: number; stopped: number; stoppedMicros: number };
  good: { texts: number; stopped: number };
};

export type LastingQuestion = {
  unwanted: readonly { text: string; costMicros: number }[];
  /** texts that must stay open whatever is chosen */
  open: readonly string[];
  /** texts that must stay open for what they brought: a fifth of them is held back, too */
  good: readonly string[];
  /** the most negatives there may be */
  limit: number;
  /**
   * How surely a negative is at fault (rules 7.12), 0..1, by all that it stops.
   * @param leftOut normalised texts that must not speak for it, or against it
   */
  evidenceOf(negative: NegativeText, leftOut: ReadonlySet<string>): number;
};

/** A negative that is worth less than this share of the best one is not worth its place in a list. */
const LEAST_WORTH = 0.05;
const FIFTH = 5;

/**
 * A few negatives that stop unwanted terms and others like them, in days to come as well (rules 9.2). Each is worth the unwanted cost that
 * it stops, by how surely it is at fault, and by how general it is: one that holds in k unwanted terms counts k/(k + 1) of it.
 * How far that carries is tried: a set is chosen without a fifth of the terms, and what it stops of that fifth is told.
 * @param question costs in whole micro-units
 * @throws RangeError when the limit is no whole number of 0 or more
 * @example lastingSet({ unwanted: [{ text: 'free hive', costMicros: 5 }, { text: 'free kit', costMicros: 3 }], open: ['hive'], good: [], limit: 9, evidenceOf: () => 0.9 }).negatives // [{ text: 'free', match: 'phrase' }]
 */
export function lastingSet(question: LastingQuestion): LastingSet {
  const { unwanted, good, limit } = question;
  if (!(Number.isInteger(limit) && limit >= 0))
    throw new RangeError(`the limit must be a whole number of 0 or more; got ${limit}`);
  return {
    negatives: choose(question, unwanted, good, new Set()),
    heldBack: tryOnFifth(question),
  };
}

/** Chooses without a fifth of the texts, and looks what that stops of them. */
function tryOnFifth(question: LastingQuestion): HeldBack {
  const unwanted = [...question.unwanted].filter(({ costMicros }) => costMicros > 0);
  const isHeld = fifthOf(unwanted.map(({ text }) => normalise(text)));
  const isGoodHeld = fifthOf(question.good.map(normalise));
  const held = unwanted.filter(({ text }) => isHeld.has(normalise(text)));
  const negatives = choose(
    question,
    unwanted.filter(({ text }) => !isHeld.has(normalise(text))),
    question.good.filter((text) => !isGoodHeld.has(normalise(text))),
    new Set([...isHeld, ...isGoodHeld]),
  );
  const gate = compileGate(negatives);
  const stopped = held.filter(({ text }) => gate.isStopped(text));
  const sum = (of: typeof held) => of.reduce((all, { costMicros }) => all + costMicros, 0);
  return {
    unwanted: {
      ...{ texts: held.length, costMicros: sum(held) },
      ...{ stopped: stopped.length, stoppedMicros: sum(stopped) },
    },
    good: { texts: isGoodHeld.size, stopped: [...isGoodHeld].filter((text) => gate.isStopped(text)).length },
  };
}

/** Every fifth text, by an order that has nothing to do with what the texts say: always the same for the same texts. */
function fifthOf(texts: readonly string[]): Set<string> {
  const ordered = [...new Set(texts)]
    .map((text) => ({ text, at: scrambled(text) }))
    .sort((a, b) => a.at - b.at || (a.text < b.text ? -1 : 1));
  return new Set(ordered.filter((_, i) => i % FIFTH === FIFTH - 1).map(({ text }) => text));
}

/** FNV-1a over UTF-16 units: http://www.isthe.com/chongo/tech/comp/fnv/ */
function scrambled(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** @param leftOut texts that say nothing about evidence */
function choose(
  { open, limit, evidenceOf }: LastingQuestion,
  unwanted: readonly { text: string; costMicros: number }[],
  good: readonly string[],
  leftOut: ReadonlySet<string>,
): NegativeText[] {
  const candidates = makeCandidates(unwanted, [...open, ...good], { isEachKept: true });
  const weigh = weigher(candidates, (j) => evidenceOf(candidates.negativeAt(j), leftOut));
  const queue = new TinyQueue(
    Array.from({ length: candidates.count }, (_, j) => ({ j, worth: weigh.atMost(j) })),
    (a, b) => b.worth - a.worth || a.j - b.j, // preferred candidates have smaller numbers
  );
  const chosen: number[] = [];
  let least = Number.MIN_VALUE; // nothing is worth nothing
  while (chosen.length < limit) {
    const next = queue.pop();
    if (!next || next.worth < least) break;
    // A worth only ever shrinks, so one that is still the largest when it is weighed anew is the largest of all.
    const worth = weigh.now(next.j);
    if (worth < least) continue;
    if (worth < next.worth) queue.push({ j: next.j, worth });
    else {
      if (chosen.length === 0) least = LEAST_WORTH * worth;
      chosen.push(next.j);
      weigh.take(next.j);
    }
  }
  return chosen.map((j) => candidates.negativeAt(j));
}

/** Worth of candidates beside those taken; evidence is asked for once, of those alone that come near to being chosen. */
function weigher({ count, starts, stops, costs }: Candidates, evidenceOf: (j: number) => number) {
  const isStopped = new Uint8Array(costs.length);
  const evidence = new Float64Array(count).fill(NaN);
  const generalWorth = (j: number) => {
    const held = starts[j + 1]! - starts[j]!;
    let cost = 0;
    for (let i = starts[j]!; i < starts[j + 1]!; i++)
      if (isStopped[stops[i]!] === 0) cost += costs[stops[i]!]!;
    return (cost * held) / (held + 1);
  };
  return {
    atMost: generalWorth,
    now(j: number): number {
      if (Number.isNaN(evidence[j]!)) evidence[j] = evidenceOf(j);
      return generalWorth(j) * evidence[j]!;
    },
    take(j: number): void {
      for (let i = starts[j]!; i < starts[j + 1]!; i++) isStopped[stops[i]!] = 1;
    },
  };
}
