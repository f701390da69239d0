import { normalise } from '../text';

/** A column of words of which each combination takes one. */
export type WordColumn = {
  words: readonly string[];
  /** whether combinations without it are made, too */
  mayBeLeftOut: boolean;
};

export type CombineSettings = {
  /** whether columns stand in every order, or as they are given */
  anyOrder: boolean;
};

/**
 * How many texts `combineWords` goes through, repeated ones counted each time: what a person is told before they are made.
 * @example countCombinations([{ words: ['bee', 'hive'], mayBeLeftOut: false }, { words: ['kit'], mayBeLeftOut: true }], { anyOrder: true }) // 6
 */
export function countCombinations(columns: readonly WordColumn[], { anyOrder }: CombineSettings): number {
  // ways[k]: how many ways there are to choose words from k of the columns
  let ways = [1];
  for (const { words, mayBeLeftOut } of cleaned(columns)) {
    const next = new Array<number>(ways.length + 1).fill(0);
    ways.forEach((count, k) => {
      next[k + 1]! += count * words.length;
      if (mayBeLeftOut) next[k]! += count;
    });
    ways = next;
  }
  return ways.reduce((sum, count, k) => sum + (k === 0 ? 0 : count * (anyOrder ? factorial(k) : 1)), 0);
}

/**
 * All combinations of a word of each column (rules 16.4), normalised, each text once, in the order of the columns and words.
 * @example [...combineWords([{ words: ['bee'], mayBeLeftOut: true }, { words: ['hive', 'kit'], mayBeLeftOut: false }], { anyOrder: false })] // ['bee hive', 'bee kit', 'hive', 'kit']
 */
export function* combineWords(
  columns: readonly WordColumn[],
  { anyOrder }: CombineSettings,
): Generator<string> {
  const made = new Set<string>();
  for (const chosen of choicesOf(cleaned(columns)))
    for (const order of anyOrder ? ordersOf(chosen) : [chosen]) {
      const text = order.join(' ');
      if (text === '' || made.has(text)) continue;
      made.add(text);
      yield text;
    }
}

/** Columns without words that say nothing; those without any word are none. */
function cleaned(columns: readonly WordColumn[]): WordColumn[] {
  return columns
    .map(({ words, mayBeLeftOut }) => ({
      words: [...new Set(words.map(normalise))].filter((word) => word !== ''),
      mayBeLeftOut,
    }))
    .filter(({ words }) => words.length > 0);
}

/** Words of each column, those that may be left out left out last. */
function* choicesOf(columns: readonly WordColumn[], from = 0): Generator<string[]> {
  const column = columns[from];
  if (!column) {
    yield [];
    return;
  }
  for (const word of column.words) for (const rest of choicesOf(columns, from + 1)) yield [word, ...rest];
  if (column.mayBeLeftOut) yield* choicesOf(columns, from + 1);
}

function* ordersOf(words: readonly string[]): Generator<string[]> {
  if (words.length < 2) {
    yield [...words];
    return;
  }
  for (const [i, word] of words.entries())
    for (const rest of ordersOf(words.toSpliced(i, 1))) yield [word, ...rest];
}

function factorial(n: number): number {
  return n < 2 ? 1 : n * factorial(n - 1);
}
