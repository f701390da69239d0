import { codeTexts, type CodedTexts } from '../mining';
import { stemOf, words } from '../text';

/** Coded texts whose words have a stem each: forms of one word share it. */
export type StemmedTexts = CodedTexts & {
  /** each word of the dictionary, as it is written */
  spelling: readonly string[];
  /** the stem of each place in wordIds, as a number from 0 */
  stemIds: Uint32Array;
  stemCount: number;
  /** the number of a word's stem; undefined where no text holds it */
  findStem(word: string): number | undefined;
};

/**
 * Codes texts once for all that Research asks of them.
 * @example stemTexts(['bee hives', 'hive']).stemCount // 2
 */
export function stemTexts(texts: readonly string[]): StemmedTexts {
  const coded = codeTexts(texts);
  const { dictionary, wordIds } = coded;
  const numbers = new Map<string, number>();
  const spelling: string[] = [];
  const stemOfWord = new Uint32Array(dictionary.size);
  for (let id = 0; id < dictionary.size; id++) {
    spelling.push(dictionary.wordOf(id));
    const stem = stemOf(spelling[id]!);
    let number = numbers.get(stem);
    if (number === undefined) numbers.set(stem, (number = numbers.size));
    stemOfWord[id] = number;
  }
  return {
    ...coded,
    ...{ spelling, stemIds: wordIds.map((word) => stemOfWord[word]!), stemCount: numbers.size },
    findStem: (word) => numbers.get(stemOf(word)),
  };
}

/** 1 for each stem that a word of some texts has, or a text of several words that is written as one. */
export function markStems({ stemCount, findStem }: StemmedTexts, given: readonly string[]): Uint8Array {
  const marked = new Uint8Array(stemCount);
  for (const word of given.flatMap((text) => [...words(text), words(text).join('')])) {
    const stem = findStem(word);
    if (stem !== undefined) marked[stem] = 1;
  }
  return marked;
}

/** The words of a stretch of the texts, as they are written. */
export function writtenAt({ spelling, wordIds }: StemmedTexts, from: number, to: number): string {
  let text = spelling[wordIds[from]!]!;
  for (let at = from + 1; at < to; at++) text += ` ${spelling[wordIds[at]!]!}`;
  return text;
}

/** The ways in which stretches are written, the most frequent first, of equals by the text. */
export function waysWritten(texts: StemmedTexts, places: Iterable<number>, length: number): string[] {
  const uses = new Map<string, number>();
  for (const at of places) {
    const text = writtenAt(texts, at, at + length);
    uses.set(text, (uses.get(text) ?? 0) + 1);
  }
  return [...uses].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([text]) => text);
}
