import { grown } from '../../columns';

/** Runs of neighbouring words as integers 0 … size − 1: a run is its first words (a run itself) and its last word. */
export type RunTable = {
  readonly size: number;
  /** The run that `prefix` and `word` make, added when it is new; prefix −1 is the empty one. */
  intern(prefix: number, word: number): number;
  /** The same run, or −1 when it was never made. */
  find(prefix: number, word: number): number;
  prefixOf(run: number): number;
  lastOf(run: number): number;
  /** The words of a run, in order, where its prefix is of this table too. */
  wordsOf(run: number): number[];
};

const FIRST_SLOTS = 1 << 12;

/** @example const r = createRunTable(); r.wordsOf(r.intern(r.intern(-1, 7), 9)) // [7, 9] */
export function createRunTable(): RunTable {
  /** Run r is keys[2r] − 1 (its prefix, −1 for none) and keys[2r + 1] (its last word). */
  let keys = new Int32Array(2 * FIRST_SLOTS);
  /** Slot s is slots[3s] and slots[3s + 1], the key, and slots[3s + 2], the run + 1, 0 where empty; at most half full. */
  let slots = new Int32Array(3 * 2 * FIRST_SLOTS);
  let mask = 2 * FIRST_SLOTS - 1;

  /** Where the slot of a run begins, or that of the empty one where it belongs. */
  function slotOf(key: number, word: number): number {
    let h = Math.imul(key, 0x9e3779b1) ^ Math.imul(word + 1, 0x85ebca6b);
    h ^= h >>> 15;
    for (let slot = h & mask; ; slot = (slot + 1) & mask) {
      const at = 3 * slot;
      if (slots[at + 2] === 0 || (slots[at] === key && slots[at + 1] === word)) return at;
    }
  }

  function fill(at: number, run: number) {
    slots[at] = keys[2 * run]!;
    slots[at + 1] = keys[2 * run + 1]!;
    slots[at + 2] = run + 1;
  }

  function rehash() {
    mask = 2 * mask + 1;
    slots = new Int32Array(3 * (mask + 1));
    for (let run = 0; run < table.size; run++) fill(slotOf(keys[2 * run]!, keys[2 * run + 1]!), run);
  }

  const table = {
    size: 0, // a field: an object with getters of its own is slow to ask for anything
    intern(prefix, word) {
      const at = slotOf(prefix + 1, word);
      if (slots[at + 2] !== 0) return slots[at + 2]! - 1;
      const run: number = table.size++;
      if (2 * run === keys.length) keys = grown(keys, 4 * run);
      keys[2 * run] = prefix + 1;
      keys[2 * run + 1] = word;
      fill(at, run);
      if (2 * table.size > mask) rehash();
      return run;
    },
    find: (prefix, word) => slots[slotOf(prefix + 1, word) + 2]! - 1,
    prefixOf: (run) => keys[2 * run]! - 1,
    lastOf: (run) => keys[2 * run + 1]!,
    wordsOf(run) {
      const words: number[] = [];
      for (let at = run; at >= 0; at = keys[2 * at]! - 1) words.unshift(keys[2 * at + 1]!);
      return words;
    },
  } satisfies RunTable;
  return table;
}
