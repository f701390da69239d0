import { grown } from '../columns';
import { normalise } from './normalise';

/** Words as integers 0 … size − 1, in the order in which they were first seen. */
export type WordDictionary = {
  readonly size: number;
  /** The integer of a word, which is added when it is new. Any text may be one: it is not taken apart. */
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
  /** The words coded last, as many as the last call returned. Another call may replace the array. */
  readonly coded: Int32Array;
};

const FIRST_SLOTS = 1 << 10;
/** Characters in half of a key. */
const HALF = 5;
const SPACE = 32;

/**
 * Plain characters from 1, others 0: a–z, 0–9, &. Normalising leaves them as they are, whatever stands beside them.
 */
const PLAIN = Uint8Array.from({ length: 128 }, (_, char) =>
  Math.max(0, 'abcdefghijklmnopqrstuvwxyz0123456789&'.indexOf(String.fromCharCode(char)) + 1),
);

/**
 * A dictionary in typed arrays with open addressing. A word is looked for by a key of two integers. Up to ten plain
 * characters, six bits each, the key is the word itself, so that one look into the table finds it; longer words, and
 * those with other characters, have a hash for a key and are compared where they stand in the text.
 * @example const d = createDictionary(); d.intern('bee'); d.idOf('bee') // 0
 */
export function createDictionary(): WordDictionary {
  /** Word w is written in letters[ends[w − 1] .. ends[w]). */
  let letters = new Uint16Array(1 << 12);
  let ends = new Uint32Array(FIRST_SLOTS);
  /**
   * Slot s is slots[3s .. 3s + 3): both halves of a key, one more than its word (0 where empty). Up to three in four
   * are full: the smaller the table, the more of it is at hand. The second half is negative where the key is a hash.
   */
  let slots = new Int32Array(3 * FIRST_SLOTS);
  let mask = FIRST_SLOTS - 1;
  /** What is written anew stands in plain fields: an object with getters of its own is slow to ask for anything. */
  const dictionary = {
    size: 0,
    coded: new Int32Array(64),
    intern: (word) => find(word, true),
    idOf(word) {
      const id = find(word, false);
      return id < 0 ? undefined : id;
    },
    wordOf(id) {
      if (!(Number.isInteger(id) && id >= 0 && id < dictionary.size))
        throw new RangeError(`a word's integer must be 0..${dictionary.size - 1}; got ${id}`);
      return String.fromCharCode(...letters.subarray(startOf(id), ends[id]));
    },
    code: (text) => codeAll(text, false),
    internAll: (text) => codeAll(text, true),
  } satisfies WordDictionary;

  const startOf = (word: number) => (word === 0 ? 0 : ends[word - 1]!);

  function isWritten(word: number, text: string, from: number, to: number): boolean {
    const start = startOf(word);
    if (ends[word]! - start !== to - from) return false;
    for (let i = from; i < to; i++) if (letters[start + i - from] !== text.charCodeAt(i)) return false;
    return true;
  }

  /** Adds the word text[from .. to) in a slot that is free. */
  function enter(
    slot: number,
    first: number,
    second: number,
    text: string,
    from: number,
    to: number,
  ): number {
    const { size } = dictionary;
    const start = startOf(size);
    const end = start + to - from;
    if (size === ends.length) ends = grown(ends, 2 * size);
    if (end > letters.length) letters = grown(letters, 2 * end);
    for (let i = from; i < to; i++) letters[start + i - from] = text.charCodeAt(i);
    ends[size] = end;
    slots[3 * slot] = first;
    slots[3 * slot + 1] = second;
    slots[3 * slot + 2] = dictionary.size = size + 1;
    if (4 * dictionary.size > 3 * mask) rehash();
    return size;
  }

  function rehash() {
    const before = slots;
    slots = new Int32Array(2 * before.length);
    mask = 2 * mask + 1;
    for (let at = 0; at < before.length; at += 3) {
      if (before[at + 2] === 0) continue;
      let slot = mixed(before[at]!, before[at + 1]!) & mask;
      while (slots[3 * slot + 2] !== 0) slot = (slot + 1) & mask;
      for (let i = 0; i < 3; i++) slots[3 * slot + i] = before[at + i]!;
    }
  }

  function codeAll(raw: string, add: boolean): number {
    const count = codeWords(raw, add, false);
    return count >= 0 ? count : codeWords(normalise(raw), add, true);
  }

  /**
   * Codes the words of a text. One loop does all the work, because millions of words go through it.
   * @param isNormal words end at spaces alone
   * @returns the number of words, or −1 where the text may not be normal
   */
  function codeWords(text: string, add: boolean, isNormal: boolean): number {
    const { length } = text;
    if (2 * dictionary.coded.length < length + 2) dictionary.coded = new Int32Array(length);
    const { coded } = dictionary;
    const plain = PLAIN;
    let count = 0;
    for (let start = 0; start < length;) {
      const half = Math.min(start + HALF, length);
      const whole = Math.min(start + 2 * HALF, length);
      let at = start;
      let first = 0;
      let second = 0;
      for (let char = 0; at < half && (char = plain[text.charCodeAt(at)]!) > 0; at++)
        first = (first << 6) | char;
      if (at === half)
        for (let char = 0; at < whole && (char = plain[text.charCodeAt(at)]!) > 0; at++)
          second = (second << 6) | char;
      if (at < length && text.charCodeAt(at) !== SPACE) {
        at = endOfWord(text, at, isNormal);
        if (at < length && text.charCodeAt(at) !== SPACE) return -1;
        coded[count++] = findByHash(text, start, at, add);
      } else {
        if (at === start) return -1; // two spaces, or one at the start
        let slot = mixed(first, second) & mask;
        let word = slots[3 * slot + 2]!;
        while (word !== 0 && (slots[3 * slot] !== first || slots[3 * slot + 1] !== second)) {
          slot = (slot + 1) & mask;
          word = slots[3 * slot + 2]!;
        }
        coded[count++] = word > 0 || !add ? word - 1 : enter(slot, first, second, text, start, at);
      }
      if (at === length) return count;
      start = at + 1;
    }
    return length === 0 ? 0 : -1; // a space at the end
  }

  /** Finds a word that does not go into a key. @returns its integer, or −1 */
  function findByHash(text: string, from: number, to: number, add: boolean): number {
    let first = 0x811c9dc5;
    let second = 0x2c1b3c6d;
    for (let i = from; i < to; i++) {
      first = Math.imul(first ^ text.charCodeAt(i), FNV_PRIME);
      second = Math.imul(second ^ text.charCodeAt(i), FNV_PRIME);
    }
    first >>>= 2;
    second = ~(second >>> 2);
    let slot = mixed(first, second) & mask;
    for (let word = slots[3 * slot + 2]!; word !== 0; word = slots[3 * slot + 2]!) {
      const isKey = slots[3 * slot] === first && slots[3 * slot + 1] === second;
      if (isKey && isWritten(word - 1, text, from, to)) return word - 1;
      slot = (slot + 1) & mask;
    }
    return add ? enter(slot, first, second, text, from, to) : -1;
  }

  function find(word: string, add: boolean): number {
    const isPlain = word.length > 0 && endOfWord(word, 0, false) === word.length;
    if (!isPlain || word.length > 2 * HALF) return findByHash(word, 0, word.length, add);
    codeWords(word, add, false);
    return dictionary.coded[0]!;
  }

  return dictionary;
}

/** Where a word ends: before a space, or before what may be no part of it. */
function endOfWord(text: string, at: number, isNormal: boolean): number {
  const goesOn = (char: number) => (isNormal ? char !== SPACE : PLAIN[char]! > 0);
  while (at < text.length && goesOn(text.charCodeAt(at))) at++;
  return at;
}

/** FNV-1a over UTF-16 units (Fowler, Noll, Vo 1991). */
const FNV_PRIME = 0x01000193;

/** The slot at which the search for a key begins. */
function mixed(first: number, second: number): number {
  const both = Math.imul(first, 0x9e3779b1) ^ Math.imul(second, 0x85ebca6b);
  return both ^ (both >>> 15);
}
