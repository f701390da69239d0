/** Words as integers 0 … size − 1, in the order in which they were first seen. */
export type WordDictionary = {
  readonly size: number;
  /** The integer of a word, which is added when it is new. */
  intern(word: string): number;
  /** The integer of a word, or undefined when it was never seen. */
  idOf(word: string): number | undefined;
  /** @throws RangeError when the integer stands for no word */
  wordOf(id: number): string;
};

/** @example const d = createDictionary(); d.intern('bee'); d.idOf('bee') // 0 */
export function createDictionary(): WordDictionary {
  const ids = new Map<string, number>();
  const known: string[] = [];
  return {
    get size() {
      return known.length;
    },
    intern(word) {
      const id = ids.get(word);
      if (id !== undefined) return id;
      ids.set(word, known.length);
      return known.push(word) - 1;
    },
    idOf: (word) => ids.get(word),
    wordOf(id) {
      const word = known[id];
      if (word === undefined)
        throw new RangeError(`a word's integer must be 0..${known.length - 1}; got ${id}`);
      return word;
    },
  };
}
