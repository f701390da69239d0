import { matchSlice, type NegativeText } from '../gate';
import { createDictionary, words, type WordDictionary } from '../text';

/**
 * Texts as columns, coded once, with a posting list for each word.
 *  - text t owns wordIds[starts[t] .. starts[t + 1]); starts.length = texts + 1
 *  - word w stands in the texts postings[postingStarts[w] .. postingStarts[w + 1]), ascending, each once
 */
export type TermTable = {
  dictionary: WordDictionary;
  starts: Uint32Array;
  wordIds: Uint32Array;
  postingStarts: Uint32Array;
  postings: Uint32Array;
};

/** Codes texts. A text without a word keeps its index and is matched by nothing. */
export function buildTermTable(texts: readonly string[]): TermTable {
  const dictionary = createDictionary();
  const coded = texts.map((text) => words(text).map((word) => dictionary.intern(word)));
  const starts = new Uint32Array(texts.length + 1);
  coded.forEach((ids, t) => (starts[t + 1] = starts[t]! + ids.length));
  return {
    dictionary,
    starts,
    wordIds: Uint32Array.from(coded.flat()),
    ...postingLists(coded, dictionary.size),
  };
}

function postingLists(coded: readonly (readonly number[])[], size: number) {
  const postingStarts = new Uint32Array(size + 1);
  const distinct = coded.map((ids) => [...new Set(ids)]);
  for (const ids of distinct) for (const id of ids) postingStarts[id + 1]! += 1;
  for (let w = 0; w < size; w++) postingStarts[w + 1]! += postingStarts[w]!;
  const next = postingStarts.slice();
  const postings = new Uint32Array(postingStarts[size]!);
  distinct.forEach((ids, t) => {
    for (const id of ids) postings[next[id]!++] = t;
  });
  return { postingStarts, postings };
}

/**
 * Indexes of the texts that a negative stops, ascending: the readable rule 2.1, asked only of the texts that hold
 * the negative's rarest word.
 * @example matchingTexts(buildTermTable(['free hive', 'hive']), { text: 'free', match: 'broad' }) // [0]
 */
export function matchingTexts(table: TermTable, negative: NegativeText): number[] {
  const ids: number[] = [];
  for (const word of words(negative.text)) {
    const id = table.dictionary.idOf(word);
    if (id === undefined) return [];
    ids.push(id);
  }
  if (ids.length === 0) return [];
  const uses = (id: number) => table.postingStarts[id + 1]! - table.postingStarts[id]!;
  const rarest = ids.reduce((best, id) => (uses(id) < uses(best) ? id : best));
  const found: number[] = [];
  for (let p = table.postingStarts[rarest]!; p < table.postingStarts[rarest + 1]!; p++) {
    const t = table.postings[p]!;
    if (matchSlice(negative.match, ids, table.wordIds, table.starts[t]!, table.starts[t + 1]!)) found.push(t);
  }
  return found;
}
