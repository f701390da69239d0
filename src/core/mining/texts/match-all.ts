import { grown } from '../../columns';
import { bitOf, EVERY_WORD, holds, matchSlice, type NegativeText } from '../../gate';
import type { TermTable } from './term-table';

/**
 * Visits each text with each negative that stops it (rules 2.1), text after text, in one way through them: a text is
 * asked only of the negatives whose rarest word it holds. For all negatives of an account; a few are found sooner by
 * their posting lists.
 * @param visit gets both indexes; the negatives of a text come in no order
 * @example const met = []; matchAll(buildTermTable(['hive', 'free hive']), [{ text: 'free', match: 'broad' }], (t, n) => met.push(t, n)); met // [1, 0]
 */
export function matchAll(
  table: TermTable,
  negatives: readonly NegativeText[],
  visit: (text: number, negative: number) => void,
): void {
  const { starts, wordIds, dictionary } = table;
  const coded = codeNegatives(table, negatives);
  /** The last negative filed under word w is first[w], the one before negative n is next[n]: one more than its index. */
  const first = new Int32Array(dictionary.size);
  const next = new Int32Array(negatives.length);
  /** What is filed under word w asks for one of the words of the set wanted[w]. */
  const wanted = new Int32Array(dictionary.size);
  for (let n = 0; n < negatives.length; n++) {
    const rarest = coded.rarest[n]!;
    if (rarest < 0) continue;
    next[n] = first[rarest]!;
    first[rarest] = n + 1;
    wanted[rarest]! |= coded.second[n]! < 0 ? EVERY_WORD : bitOf(coded.second[n]!);
  }
  const matches = (n: number, from: number, to: number) =>
    matchSlice(negatives[n]!.match, coded.ids, coded.starts[n]!, coded.starts[n + 1]!, wordIds, from, to);
  for (let t = 0; t + 1 < starts.length; t++) {
    const from = starts[t]!;
    const to = starts[t + 1]!;
    let has = 0;
    for (let i = from; i < to; i++) has |= bitOf(wordIds[i]!);
    for (let i = from; i < to; i++) {
      const word = wordIds[i]!;
      if ((wanted[word]! & has) === 0 || holds(word, wordIds, from, i)) continue;
      for (let at = first[word]!; at !== 0; at = next[at - 1]!) {
        const n = at - 1;
        const second = coded.second[n]!;
        if (second >= 0 && (bitOf(second) & has) === 0) continue; // most of them
        if (second >= 0 && !holds(second, wordIds, from, to)) continue;
        if (coded.isSettled[n] === 1 || matches(n, from, to)) visit(t, n);
      }
    }
  }
}

/** Negative n in the words of a table: ids[starts[n] .. starts[n + 1]), none where one of them stands in no text. */
type CodedNegatives = {
  starts: Uint32Array;
  ids: Uint32Array;
  /** its rarest word, and the rarest beside that; −1 for none */
  rarest: Int32Array;
  second: Int32Array;
  /** 1 where these two decide whether it stops a text that holds them */
  isSettled: Uint8Array;
};

function codeNegatives(
  { dictionary, postingStarts }: TermTable,
  negatives: readonly NegativeText[],
): CodedNegatives {
  const starts = new Uint32Array(negatives.length + 1);
  let ids = new Uint32Array(4 * negatives.length + 16);
  const [rarest, second] = [new Int32Array(negatives.length), new Int32Array(negatives.length)];
  const isSettled = new Uint8Array(negatives.length);
  const uses = (id: number) => postingStarts[id + 1]! - postingStarts[id]!;
  const rarestIn = (words: Int32Array, but = -1) =>
    words.reduce((best, id) => (id !== but && (best < 0 || uses(id) < uses(best)) ? id : best), -1);
  negatives.forEach(({ text, match }, n) => {
    const count = dictionary.code(text);
    const all = dictionary.coded.subarray(0, count);
    const words = all.includes(-1) ? all.subarray(0, 0) : all;
    const end = starts[n]! + words.length;
    if (end > ids.length) ids = grown(ids, 2 * end);
    ids.set(words, starts[n]);
    starts[n + 1] = end;
    rarest[n] = rarestIn(words);
    second[n] = rarestIn(words, rarest[n]);
    isSettled[n] = Number(words.length <= (match === 'broad' ? 2 : match === 'phrase' ? 1 : 0));
  });
  return { starts, ids, rarest, second, isSettled };
}
