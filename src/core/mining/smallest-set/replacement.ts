import { stops, type NegativeText } from '../../gate';
import { normalise, words } from '../../text';
import { buildTermTable, matchTexts } from '../texts/term-table';
import { makeCandidates, type Candidates } from './candidates';
import { chooseGreedily, withoutNeedless } from './greedy';

/** Fewer negatives in the place of some that stand, which stop the same terms. */
export type Replacement = {
  /** those of the standing ones that stay */
  kept: NegativeText[];
  added: NegativeText[];
  removed: NegativeText[];
  /** distinct terms that they stop, before and afterwards, and that nothing fixed stops */
  terms: number;
  /** terms that must stay open and were stopped: they are open afterwards */
  opened: string[];
  /** of the removed ones, those that stop no term at all */
  idle: number;
  /** queries made of the negatives' own words that would be stopped no more, or from now on */
  differs: { open: string[]; stopped: string[] };
};

/**
 * The fewest negatives found that stop the same terms as those that stand, and nothing that must stay open (rules 9.3). One
 * that stands goes before a new one that stops as much. Not certain to be the fewest there are.
 * @param question `fixed`: they stand beside the others, and stay: of what was stopped before the data begin, nobody knows what it
 * stops. `terms`: what was served where all of them act; what of it they do not stop stays open. `open`: texts that must
 * stay open besides, whatever stops them now.
 * @example replaceNegatives({ standing: [{ text: 'free hive', match: 'exact' }, { text: 'free kit', match: 'exact' }], terms: ['free hive', 'free kit', 'hive', 'kit'], open: [] }).added // [{ text: 'free', match: 'phrase' }]
 */
export function replaceNegatives(question: {
  standing: readonly NegativeText[];
  fixed?: readonly NegativeText[];
  terms: readonly string[];
  open: readonly string[];
}): Replacement {
  const fixed = distinct(question.fixed ?? []);
  const isFixed = new Set(fixed.map(keyOf));
  const standing = distinct(question.standing).filter((negative) => !isFixed.has(keyOf(negative)));
  const terms = [...new Set(question.terms.map(normalise))].filter((term) => term !== '');
  const mustStay = new Set(question.open.map(normalise));
  const isStopped = new Uint8Array(terms.length);
  const table = buildTermTable(terms);
  const reached = standing.map((negative) => matchTexts(table, negative));
  for (const of of reached) for (const t of of) isStopped[t] = 1;
  const byFixed = new Set(fixed.flatMap((negative) => [...matchTexts(table, negative)]));
  const wanted = terms.filter((term, t) => isStopped[t] === 1 && !byFixed.has(t) && !mustStay.has(term));
  const open = [...question.open, ...terms.filter((_, t) => isStopped[t] === 0 && !byFixed.has(t))];
  // What a standing one stops is stopped, so it hits nothing but what must stay open.
  const safe = standing.filter((negative) => !question.open.some((text) => stops(negative, text)));
  const made = makeCandidates(
    wanted.map((text) => ({ text, costMicros: 1 })),
    open,
  );
  const candidates = withStanding(made, safe, wanted);
  const chosen = withoutNeedless(candidates, chooseGreedily(candidates, candidates.count));
  const alone = withoutNeedless(candidates, chooseGreedily(onlyFirst(candidates, safe.length), safe.length));
  const isWhole = coverOf(candidates, alone) === wanted.length;
  const best = isWhole && alone.length <= chosen.length ? alone : chosen;
  const set = best.map((j) => candidates.negativeAt(j));
  const isIn = new Set(set.map(keyOf));
  const stood = new Set(standing.map(keyOf));
  const removed = standing.filter((negative) => !isIn.has(keyOf(negative)));
  const added = set.filter((negative) => !stood.has(keyOf(negative)));
  const isRemoved = new Set(removed.map(keyOf));
  return {
    ...{ kept: standing.filter((negative) => isIn.has(keyOf(negative))), added, removed },
    terms: wanted.length,
    opened: terms.filter((term, t) => isStopped[t] === 1 && !byFixed.has(t) && mustStay.has(term)),
    idle: standing.filter((negative, i) => isRemoved.has(keyOf(negative)) && reached[i]!.length === 0).length,
    differs: differences({ before: [...fixed, ...standing], after: [...fixed, ...set], removed, added }),
  };
}

const keyOf = ({ text, match }: NegativeText) => `${match} ${normalise(text)}`;

function distinct(negatives: readonly NegativeText[]): NegativeText[] {
  return [...new Map(negatives.map((negative) => [keyOf(negative), negative])).values()];
}

/** Candidates with the standing negatives before them, which go first among equals. */
function withStanding(
  made: Candidates,
  standing: readonly NegativeText[],
  wanted: readonly string[],
): Candidates {
  const table = buildTermTable(wanted);
  const reached = standing.map((negative) => matchTexts(table, negative));
  const count = standing.length + made.count;
  const starts = new Uint32Array(count + 1);
  reached.forEach((of, j) => (starts[j + 1] = starts[j]! + of.length));
  const before = starts[standing.length]!;
  for (let j = 0; j < made.count; j++) starts[standing.length + j + 1] = before + made.starts[j + 1]!;
  const stopped = new Uint32Array(before + made.stops.length);
  reached.forEach((of, j) => stopped.set(of, starts[j]));
  stopped.set(made.stops, before);
  const sizes = <Column extends Uint8Array | Uint32Array>(
    column: Column,
    of: (n: NegativeText) => number,
  ) => {
    const all = new (column.constructor as new (length: number) => Column)(count);
    standing.forEach((negative, j) => (all[j] = of(negative)));
    all.set(column, standing.length);
    return all;
  };
  return {
    ...{ count, starts, stops: stopped, costs: made.costs },
    negativeAt: (j) => standing[j] ?? made.negativeAt(j - standing.length),
    words: sizes(made.words, ({ text }) => Math.min(255, words(text).length)),
    characters: sizes(made.characters, ({ text }) => text.length),
    isExact: sizes(made.isExact, ({ match }) => (match === 'exact' ? 1 : 0)),
  };
}

/** The same with the first candidates alone. */
function onlyFirst(candidates: Candidates, count: number): Candidates {
  return { ...candidates, count };
}

function coverOf({ starts, stops: of }: Candidates, chosen: readonly number[]): number {
  const stopped = new Set<number>();
  for (const j of chosen) for (let i = starts[j]!; i < starts[j + 1]!; i++) stopped.add(of[i]!);
  return stopped.size;
}

/** Queries are made of each negative's own text, and of that with another one behind it. */
function differences(sets: {
  before: readonly NegativeText[];
  after: readonly NegativeText[];
  removed: readonly NegativeText[];
  added: readonly NegativeText[];
}): Replacement['differs'] {
  const { before, after, removed, added } = sets;
  const another = [...added, ...removed].map(({ text }) => normalise(text));
  const madeOf = (negatives: readonly NegativeText[]) => [
    ...new Set(
      negatives.flatMap(({ text }, i) => {
        const own = normalise(text);
        const other = another[(i + 1) % Math.max(1, another.length)];
        return other === undefined || other === own ? [own] : [own, `${own} ${other}`];
      }),
    ),
  ];
  const [were, are] = [stoppedAmong(before), stoppedAmong(after)];
  const [ofRemoved, ofAdded] = [madeOf(removed), madeOf(added)];
  const [wereOfRemoved, areOfRemoved] = [were(ofRemoved), are(ofRemoved)];
  const [wereOfAdded, areOfAdded] = [were(ofAdded), are(ofAdded)];
  return {
    open: ofRemoved.filter((_, i) => wereOfRemoved.has(i) && !areOfRemoved.has(i)),
    stopped: ofAdded.filter((_, i) => areOfAdded.has(i) && !wereOfAdded.has(i)),
  };
}

/** Which of some queries a set of negatives stops, by their indexes. */
function stoppedAmong(negatives: readonly NegativeText[]): (queries: readonly string[]) => Set<number> {
  return (queries) => {
    const table = buildTermTable(queries);
    return new Set(negatives.flatMap((negative) => [...matchTexts(table, negative)]));
  };
}
