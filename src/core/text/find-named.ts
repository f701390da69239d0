/** A name within a text: its words from `from` up to, but without, `to`. */
export type NamedRun = { name: string; from: number; to: number };

/**
 * The names that a text holds as runs of its words, from the left; of those that begin at one word, the longest is taken, and no word belongs
 * to two.
 * @param words of the text, normalised
 * @param isName whether a run of words, joined by spaces, is a name
 * @param longest words of the longest name
 * @example findNamed(['bee', 'hive', 'new', 'york'], (run) => run === 'new york' || run === 'york', 2) // [{ name: 'new york', from: 2, to: 4 }]
 */
export function findNamed(
  words: readonly string[],
  isName: (run: string) => boolean,
  longest: number,
): NamedRun[] {
  const found: NamedRun[] = [];
  for (let from = 0; from < words.length;) {
    let to = Math.min(words.length, from + longest);
    while (to > from && !isName(words.slice(from, to).join(' '))) to -= 1;
    if (to > from) found.push({ name: words.slice(from, to).join(' '), from, to });
    from = Math.max(to, from + 1);
  }
  return found;
}
