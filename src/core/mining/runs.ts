import { grown } from '../columns';

/** Runs of neighbouring words as integers 0 … size − 1: a run is its first words (a run itself) and its last word. */
export type RunTable = {
  readonly size: number;
  /** The run that `prefix` and `word` make, added when it is new; prefix −1 is the empty one. */
  intern(prefix: number, word: number): number;
  /** The same run, or −1 when it was never made. */
  find(prefix: number, word: number): number;
  /** The words of a run, in order. */
  wordsOf(run: number): number[];
};

const FIRST_SLOTS = 1 << 12;

/** @example const r = createRunTable(); r.wordsOf(r.intern(r.intern(-1, 7), 9)) // [7, 9] */
export function createRunTable(): RunTable {
  /** Run r is prefixes[r] − 1 (−1 for none) and lasts[r]. */
  let prefixes = new Uint32Array(FIRST_SLOTS);
  let lasts = new Uint32Array(FIRST_SLOTS);
  /** Slot of a hash → run + 1, 0 where empty; at most half full, its length a power of two. */
  let slots = new Uint32Array(2 * FIRST_SLOTS);
  let size = 0;

  const hash = (prefix: number, word: number) => {
    const h = Math.imul(prefix + 1, 0x9e3779b1) ^ Math.imul(word + 1, 0x85ebca6b);
    return (h ^ (h >>> 15)) >>> 0;
  };

  /** The slot of a run, or the empty one where it belongs. */
  function slotOf(prefix: number, word: number): number {
    const mask = slots.length - 1;
    let slot = hash(prefix, word) & mask;
    for (let entry = slots[slot]!; entry !== 0; entry = slots[slot]!) {
      if (lasts[entry - 1] === word && prefixes[entry - 1] === prefix + 1) return slot;
      slot = (slot + 1) & mask;
    }
    return slot;
  }

  function rehash() {
    slots = new Uint32Array(2 * slots.length);
    for (let run = 0; run < size; run++) slots[slotOf(prefixes[run]! - 1, lasts[run]!)] = run + 1;
  }

  return {
    get size() {
      return size;
    },
    intern(prefix, word) {
      const slot = slotOf(prefix, word);
      if (slots[slot] !== 0) return slots[slot]! - 1;
      if (size === prefixes.length) {
        prefixes = grown(prefixes, 2 * size);
        lasts = grown(lasts, 2 * size);
      }
      const run = size++;
      prefixes[run] = prefix + 1;
      lasts[run] = word;
      slots[slot] = size;
      if (2 * size > slots.length) rehash();
      return run;
    },
    find: (prefix, word) => slots[slotOf(prefix, word)]! - 1,
    wordsOf(run) {
      const words: number[] = [];
      for (let at = run; at >= 0; at = prefixes[at]! - 1) words.unshift(lasts[at]!);
      return words;
    },
  };
}
