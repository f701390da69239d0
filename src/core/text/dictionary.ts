import { grown } from '../columns';
import { normalise } from './normalise';

/** Words as integers 0 … size − 1, in the order in which they were first seen. */
export type WordDictionary = {
  readonly size: number;
  /** The integer of a word, which is added when it is new. */
  intern(word: string): number;
  /** The integer of a word, or undefined when it was never seen. */
  idOf(word: string): number | undefined;
  /** @throws RangeError when the integer stands for no word */
  wordOf(id: number): string;
  /**
   * Codes the words of a text, −1 for words never seen, without making a string. They stand in `coded`.
   * @returns how many words there are
   */
  code(text: string): number;
  /** The same, with new words added, so that none is −1. */
  internAll(text: string): number;
  /** What was coded last: as many as the last call said. Another array may stand here after another call. */
  readonly coded: Int32Array;
};

const SPACE = 32;
const FIRST_SLOTS = 1 << 10;

/**
 * A dictionary in typed arrays with open addressing: a word is compared by its characters where it stands in a text.
 * @example const d = createDictionary(); d.intern('bee'); d.idOf('bee') // 0
 */
export function createDictionary(): WordDictionary {
  /** Word w owns chars[starts[w] .. starts[w + 1]). */
  let chars = new Uint16Array(1 << 12);
  let starts = new Uint32Array(FIRST_SLOTS);
  let hashes = new Uint32Array(FIRST_SLOTS);
  /** Slot of a hash → word + 1, 0 where empty; an eighth to a half full, its length a power of two. */
  let slots = new Int32Array(2 * FIRST_SLOTS);
  let size = 0;
  let ids = new Int32Array(64);

  /** The word text[from .. to), or −1; when wanted it is added. */
  function find(text: string, from: number, to: number, hash: number, add: boolean): number {
    const mask = slots.length - 1;
    let slot = hash & mask;
    for (let entry = slots[slot]!; entry !== 0; entry = slots[slot]!) {
      if (hashes[entry - 1] === hash && isWord(entry - 1, text, from, to)) return entry - 1;
      slot = (slot + 1) & mask;
    }
    if (!add) return -1;
    slots[slot] = size + 1;
    return append(text, from, to, hash);
  }

  function isWord(word: number, text: string, from: number, to: number): boolean {
    const start = starts[word]!;
    if (starts[word + 1]! - start !== to - from) return false;
    for (let i = from; i < to; i++) if (chars[start + i - from] !== text.charCodeAt(i)) return false;
    return true;
  }

  function append(text: string, from: number, to: number, hash: number): number {
    const word = size++;
    if (size + 1 > hashes.length) {
      starts = grown(starts, 2 * starts.length);
      hashes = grown(hashes, 2 * hashes.length);
    }
    const start = starts[word]!;
    if (start + to - from > chars.length) chars = grown(chars, Math.max(2 * chars.length, start + to - from));
    for (let i = from; i < to; i++) chars[start + i - from] = text.charCodeAt(i);
    starts[word + 1] = start + to - from;
    hashes[word] = hash;
    if (2 * size > slots.length) rehash(4 * slots.length);
    return word;
  }

  function rehash(length: number) {
    slots = new Int32Array(length);
    for (let word = 0; word < size; word++) {
      let slot = hashes[word]! & (length - 1);
      while (slots[slot] !== 0) slot = (slot + 1) & (length - 1);
      slots[slot] = word + 1;
    }
  }

  function codeAll(raw: string, add: boolean): number {
    const count = codeNormal(raw, add, false);
    return count >= 0 ? count : codeNormal(normalise(raw), add, true);
  }

  /** Codes a text that is normal as it stands. @returns the number of words, or −1 where it may not be normal */
  function codeNormal(text: string, add: boolean, isSure: boolean): number {
    if (ids.length < text.length / 2 + 1) ids = new Int32Array(text.length);
    let count = 0;
    let from = 0;
    let hash = FNV_BASIS;
    for (let i = 0; i < text.length; i++) {
      const char = text.charCodeAt(i);
      if (char === SPACE) {
        if (i === from) return -1;
        ids[count++] = find(text, from, i, hash >>> 0, add);
        from = i + 1;
        hash = FNV_BASIS;
      } else if (isSure || PLAIN[char] === 1) hash = Math.imul(hash ^ char, FNV_PRIME);
      else return -1;
    }
    if (from < text.length) ids[count++] = find(text, from, text.length, hash >>> 0, add);
    return from < text.length || from === 0 ? count : -1;
  }

  const hashOf = (word: string) => {
    let hash = FNV_BASIS;
    for (let i = 0; i < word.length; i++) hash = Math.imul(hash ^ word.charCodeAt(i), FNV_PRIME);
    return hash >>> 0;
  };

  return {
    get size() {
      return size;
    },
    intern: (word) => find(word, 0, word.length, hashOf(word), true),
    idOf(word) {
      const id = find(word, 0, word.length, hashOf(word), false);
      return id < 0 ? undefined : id;
    },
    wordOf(id) {
      if (!(Number.isInteger(id) && id >= 0 && id < size))
        throw new RangeError(`a word's integer must be 0..${size - 1}; got ${id}`);
      return String.fromCharCode(...chars.subarray(starts[id], starts[id + 1]));
    },
    code: (text) => codeAll(text, false),
    internAll: (text) => codeAll(text, true),
    get coded() {
      return ids;
    },
  };
}

/** FNV-1a over UTF-16 units (Fowler, Noll, Vo 1991). */
const FNV_BASIS = 0x811c9dc5;
const FNV_PRIME = 0x01000193;

/** Characters that normalising leaves as they are, whatever stands beside them: a–z, 0–9, &. */
const PLAIN = Uint8Array.from({ length: 128 }, (_, char) =>
  Number(/[a-z0-9&]/.test(String.fromCharCode(char))),
);
