import { randomLcg } from 'd3';
import type { MatchType, NegativeText } from '@/core';

/** A made-up account of any size, the same for the same numbers. */
export type BenchAccount = {
  /** distinct texts */
  terms: string[];
  clicks: Float64Array;
  costMicros: Float64Array;
  conversions: Float64Array;
  negatives: NegativeText[];
};

const MEAN_WORDS = 4.3;

/** Words are drawn by a law of Zipf, so a few are in very many terms, as in real accounts. */
export function makeAccount(termCount: number, negativeCount: number): BenchAccount {
  const draw = randomLcg(0.42);
  const vocabulary = Array.from({ length: Math.max(2_000, Math.round(80 * Math.sqrt(termCount))) }, (_, i) =>
    spell(i),
  );
  const word = () => vocabulary[Math.floor(vocabulary.length ** draw()) - 1 + Math.floor(draw() * 1.0001)]!;
  const terms = new Set<string>();
  while (terms.size < termCount) {
    const length = 1 + Math.min(9, Math.floor(-Math.log(1 - draw()) * (MEAN_WORDS - 0.5)));
    const text = Array.from({ length: Math.max(2, length) }, word).join(' ');
    terms.add(text);
  }
  const texts = [...terms];
  const figure = (mean: number) => Float64Array.from(texts, () => Math.floor(-Math.log(1 - draw()) * mean));
  return {
    terms: texts,
    clicks: figure(3),
    costMicros: figure(900_000),
    conversions: Float64Array.from(texts, () => (draw() < 0.06 ? 1 : 0)),
    negatives: makeNegatives(texts, vocabulary, negativeCount, draw),
  };
}

/** 40 % phrase, 40 % broad, 20 % exact; rare single words, runs and pairs of words of terms, and whole terms. */
function makeNegatives(
  texts: readonly string[],
  vocabulary: readonly string[],
  count: number,
  draw: () => number,
): NegativeText[] {
  const ranks = new Map(vocabulary.map((word, rank) => [word, rank]));
  const matches: MatchType[] = ['phrase', 'broad', 'phrase', 'broad', 'exact'];
  return Array.from({ length: count }, (_, i) => {
    const match = matches[i % 5]!;
    const words = texts[Math.floor(draw() * texts.length)]!.split(' ');
    if (match === 'exact') return { match, text: words.join(' ') };
    if (i % 4 === 0) {
      const rare = Math.floor(vocabulary.length * (0.05 + 0.95 * draw()));
      return { match, text: vocabulary[Math.min(rare, vocabulary.length - 1)]! };
    }
    const rarest = words.reduce(
      (best, word, at) => (ranks.get(word)! > ranks.get(words[best]!)! ? at : best),
      0,
    );
    const at = Math.max(0, rarest - (i % 2)); // a run with the word that is at fault
    return { match, text: words.slice(at, at + 2 + (i % 3 === 0 ? 1 : 0)).join(' ') };
  });
}

/** A pronounceable word for each number. */
function spell(n: number): string {
  const [consonants, vowels] = ['bcdfghjklmnprstvwz', 'aeiou'];
  let word = '';
  for (let rest = n + 90; rest > 0; rest = Math.floor(rest / 90)) {
    word += consonants[rest % 18]! + vowels[Math.floor(rest / 18) % 5]!;
  }
  return word;
}
