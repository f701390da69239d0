import { createDictionary, words } from '../text';
import { matchWords } from './match';
import type { MatchType, NegativeText } from './negative';

/** Many negatives, compiled so that a query looks only at those that share their rarest word with it. */
export type Gate = {
  /** Indexes of all negatives that match the query, ascending. */
  stoppers(query: string): number[];
  isStopped(query: string): boolean;
  /** Indexes of the negatives without a word: they keep their index and stop nothing (1.2). */
  readonly wordless: readonly number[];
};

/**
 * Compiles negatives for many queries. Answers are those of `stops` for each pair.
 * Every negative stands in the bucket of its rarest word among the negatives; a query opens only the buckets of
 * its own words, each once.
 * @example compileGate([{ text: 'free', match: 'broad' }]).stoppers('free hive') // [0]
 */
export function compileGate(negatives: readonly NegativeText[]): Gate {
  const dictionary = createDictionary();
  const coded = negatives.map(({ text, match }) => ({
    match,
    ids: words(text).map((w) => dictionary.intern(w)),
  }));
  const buckets = fillBuckets(coded, dictionary.size);
  const wordless = coded.flatMap(({ ids }, index) => (ids.length === 0 ? [index] : []));

  /** Words the negatives never use become −1: they match nothing but keep their place in the order. */
  const code = (query: string) => words(query).map((word) => dictionary.idOf(word) ?? -1);

  function* matching(query: string): Generator<number> {
    const ids = code(query);
    for (const word of new Set(ids)) {
      for (const index of buckets[word] ?? []) {
        const negative = coded[index]!;
        if (matchWords(negative.match, negative.ids, ids)) yield index;
      }
    }
  }

  return {
    stoppers: (query) => [...matching(query)].sort((a, b) => a - b),
    isStopped: (query) => !matching(query).next().done,
    wordless,
  };
}

function fillBuckets(
  coded: readonly { match: MatchType; ids: readonly number[] }[],
  size: number,
): number[][] {
  const uses = new Uint32Array(size);
  for (const { ids } of coded) for (const id of new Set(ids)) uses[id]! += 1;
  const buckets: number[][] = Array.from({ length: size }, () => []);
  coded.forEach(({ ids }, index) => {
    if (ids.length === 0) return;
    const rarest = ids.reduce((best, id) => (uses[id]! < uses[best]! ? id : best));
    buckets[rarest]!.push(index);
  });
  return buckets;
}
