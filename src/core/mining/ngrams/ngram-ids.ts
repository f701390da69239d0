import { grown } from '../../columns';

/** N-grams as integers 0 … size − 1: an n-gram is its first words (an n-gram itself) and its last word. */
export type NgramTable = {
  readonly size: number;
  /** The n-gram that `prefix` and `word` make, added when it is new; prefix −1 is the empty one. */
  intern(prefix: number, word: number): number;
  /** The same n-gram, or −1 when it was never made. */
  find(prefix: number, word: number): number;
  prefixOf(ngram: number): number;
  lastOf(ngram: number): number;
  /** The words of an n-gram, in order, where its prefix is of this table too. */
  wordsOf(ngram: number): number[];
};

const FIRST_SLOTS = 1 << 12;

/** @example const r = createNgramTable(); r.wordsOf(r.intern(r.intern(-1, 7), 9)) // [7, 9] */
export function createNgramTable(): NgramTable {
  /** N-gram r is keys[2r] − 1 (its prefix, −1 for none) and keys[2r + 1] (its last word). */
  let keys = new Int32Array(2 * FIRST_SLOTS);
  /** Slot s is slots[3s] and slots[3s + 1], the key, and slots[3s + 2], the n-gram + 1, 0 where empty; at most half full. */
  let slots = new Int32Array(3 * 2 * FIRST_SLOTS);
  let mask = 2 * FIRST_SLOTS - 1;

  /** Where the slot of an n-gram begins, or that of the empty one where it belongs. */
  function slotOf(key: number, word: number): number {
    let h = Math.imul(key, 0x9e3779b1) ^ Math.imul(word + 1, 0x85ebca6b);
    h ^= h >>> 15;
    for (let slot = h & mask; ; slot = (slot + 1) & mask) {
      const at = 3 * slot;
      if (slots[at + 2] === 0 || (slots[at] === key && slots[at + 1] === word)) return at;
    }
  }

  function fill(at: number, ngram: number) {
    slots[at] = keys[2 * ngram]!;
    slots[at + 1] = keys[2 * ngram + 1]!;
    slots[at + 2] = ngram + 1;
  }

  function rehash() {
    mask = 2 * mask + 1;
    slots = new Int32Array(3 * (mask + 1));
    for (let ngram = 0; ngram < table.size; ngram++)
      fill(slotOf(keys[2 * ngram]!, keys[2 * ngram + 1]!), ngram);
  }

  const table = {
    size: 0, // a field: an object with getters of its own is slow to ask for anything
    intern(prefix, word) {
      const at = slotOf(prefix + 1, word);
      if (slots[at + 2] !== 0) return slots[at + 2]! - 1;
      const ngram: number = table.size++;
      if (2 * ngram === keys.length) keys = grown(keys, 4 * ngram);
      keys[2 * ngram] = prefix + 1;
      keys[2 * ngram + 1] = word;
      fill(at, ngram);
      if (2 * table.size > mask) rehash();
      return ngram;
    },
    find: (prefix, word) => slots[slotOf(prefix + 1, word) + 2]! - 1,
    prefixOf: (ngram) => keys[2 * ngram]! - 1,
    lastOf: (ngram) => keys[2 * ngram + 1]!,
    wordsOf(ngram) {
      const words: number[] = [];
      for (let at = ngram; at >= 0; at = keys[2 * at]! - 1) words.unshift(keys[2 * at + 1]!);
      return words;
    },
  } satisfies NgramTable;
  return table;
}
