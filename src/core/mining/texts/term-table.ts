import { grown } from '../../columns';
import { matchSlice, type NegativeText } from '../../gate';
import { createDictionary, type WordDictionary } from '../../text';

/** Texts as columns, coded once: text t owns wordIds[starts[t] .. starts[t + 1]); starts.length = texts + 1. */
export type CodedTexts = {
  dictionary: WordDictionary;
  starts: Uint32Array;
  wordIds: Uint32Array;
};

/**
 * The same with a posting list for each word: w stands in the texts postings[postingStarts[w] .. postingStarts[w + 1]),
 * ascending, each once.
 */
export type TermTable = CodedTexts & {
  postingStarts: Uint32Array;
  postings: Uint32Array;
};

/**
 * Codes texts. One without a word keeps its index.
 * @example codeTexts(['bee hive', 'bee']).wordIds // new Uint32Array([0, 1, 0])
 */
export function codeTexts(texts: readonly string[]): CodedTexts {
  const dictionary = createDictionary();
  const starts = new Uint32Array(texts.length + 1);
  let wordIds = new Uint32Array(4 * texts.length + 16);
  texts.forEach((text, t) => {
    const count = dictionary.internAll(text);
    const { coded } = dictionary;
    const start = starts[t]!;
    if (start + count > wordIds.length) wordIds = grown(wordIds, Math.ceil(1.25 * (start + count)));
    for (let i = 0; i < count; i++) wordIds[start + i] = coded[i]!;
    starts[t + 1] = start + count;
  });
  return { dictionary, starts, wordIds: wordIds.subarray(0, starts[texts.length]) };
}

/** Codes texts and files them by their words. A text without a word keeps its index and is matched by nothing. */
export function buildTermTable(texts: readonly string[]): TermTable {
  const coded = codeTexts(texts);
  return { ...coded, ...postingLists(coded.starts, coded.wordIds, coded.dictionary.size) };
}

/** Counts each word's texts, then fills the lists; a word that repeats in a text is entered once. */
function postingLists(starts: Uint32Array, wordIds: Uint32Array, size: number) {
  const postingStarts = new Uint32Array(size + 1);
  const isFirst = (at: number, start: number) => {
    for (let i = start; i < at; i++) if (wordIds[i] === wordIds[at]) return false;
    return true;
  };
  const texts = starts.length - 1;
  for (let t = 0; t < texts; t++) {
    for (let i = starts[t]!; i < starts[t + 1]!; i++)
      if (isFirst(i, starts[t]!)) postingStarts[wordIds[i]! + 1]! += 1;
  }
  for (let w = 0; w < size; w++) postingStarts[w + 1]! += postingStarts[w]!;
  const next = postingStarts.slice();
  const postings = new Uint32Array(postingStarts[size]!);
  for (let t = 0; t < texts; t++) {
    for (let i = starts[t]!; i < starts[t + 1]!; i++)
      if (isFirst(i, starts[t]!)) postings[next[wordIds[i]!]!++] = t;
  }
  return { postingStarts, postings };
}

/**
 * Indexes of the texts that a negative stops, ascending: the readable rule 2.1, asked only of the texts that hold
 * the negative's rarest word.
 * @example matchingTexts(buildTermTable(['free hive', 'hive']), { text: 'free', match: 'broad' }) // [0]
 */
export function matchingTexts(table: TermTable, negative: NegativeText): number[] {
  const found = matchTexts(table, negative);
  const texts = new Array<number>(found.length);
  for (let i = 0; i < found.length; i++) texts[i] = found[i]!;
  return texts;
}

/**
 * The same as numbers in a row, which may be a part of the table itself: they are not to be changed.
 * @example matchTexts(buildTermTable(['free hive', 'hive']), { text: 'hive', match: 'broad' }) // Uint32Array.of(0, 1)
 */
export function matchTexts(table: TermTable, { text, match }: NegativeText): Uint32Array {
  const { starts, wordIds, postings, postingStarts } = table;
  const count = table.dictionary.code(text);
  const coded = table.dictionary.coded.subarray(0, count);
  if (count === 0 || coded.includes(-1)) return new Uint32Array(0);
  const ids = Uint32Array.from(coded);
  const uses = (id: number) => postingStarts[id + 1]! - postingStarts[id]!;
  const rarest = ids.reduce((best, id) => (uses(id) < uses(best) ? id : best));
  const holding = postings.subarray(postingStarts[rarest], postingStarts[rarest + 1]);
  // A single word, unless it must be the whole text, stops whatever holds it (rules 2.2).
  if (ids.length === 1 && match !== 'exact') return holding;
  const found = new Uint32Array(holding.length);
  let length = 0;
  for (const t of holding) {
    if (matchSlice(match, ids, 0, ids.length, wordIds, starts[t]!, starts[t + 1]!)) found[length++] = t;
  }
  return found.subarray(0, length);
}
