import { group } from 'd3-array';
import pluralize from 'pluralize';
import { words } from './normalise';
import { stemOf } from './stem';

/** The words and neighbouring pairs of words that occur in some texts, filed by what makes them alike. */
export type Vocabulary = {
  hasWord(word: string): boolean;
  /** whether the two words stand next to each other somewhere */
  hasPair(first: string, second: string): boolean;
  /** words with the same singular */
  bySingular(word: string): readonly string[];
  byStem(word: string): readonly string[];
  /** words that are the same without accents */
  byPlain(word: string): readonly string[];
  /** words of a length in letters */
  ofLength(length: number): readonly string[];
};

/** @example compileVocabulary(['bee hive']).hasPair('bee', 'hive') // true */
export function compileVocabulary(texts: Iterable<string>): Vocabulary {
  const known = new Set<string>();
  const pairs = new Set<string>();
  for (const text of texts) {
    const of = words(text);
    of.forEach((word, i) => {
      known.add(word);
      if (i > 0) pairs.add(`${of[i - 1]} ${word}`);
    });
  }
  const file = <Key>(key: (word: string) => Key) => {
    let groups: ReadonlyMap<Key, string[]> | undefined; // made when first asked for
    return (asked: Key) => (groups ??= group(known, key)).get(asked) ?? [];
  };
  const [singular, stem, plain, length] = [
    file(singularOf),
    file(stemOf),
    file(withoutAccents),
    file(lengthOf),
  ];
  return {
    hasWord: (word) => known.has(word),
    hasPair: (first, second) => pairs.has(`${first} ${second}`),
    bySingular: (word) => singular(singularOf(word)),
    byStem: (word) => stem(stemOf(word)),
    byPlain: (word) => plain(withoutAccents(word)),
    ofLength: length,
  };
}

const singularOf = (word: string) => pluralize.singular(word);

/** café becomes cafe */
function withoutAccents(word: string): string {
  return word.normalize('NFD').replace(/\p{M}/gu, '').normalize('NFC');
}

/**
 * Length in letters (code points).
 * @example lengthOf('café') // 4
 */
export function lengthOf(word: string): number {
  return [...word].length;
}
