import { stemOf } from '../text';
import type { TermTable } from './texts/term-table';

/**
 * Words that say that a query is plainly about something else (rules 7.9): few texts hold them, and no text that must
 * stay open holds any form of them.
 * @param open texts that speak of what is sold: converting terms, live keywords, what is kept
 * @param most texts that may hold a foreign word
 * @returns 1 for each foreign word of the table's dictionary, 0 for the others
 * @example findForeignWords(buildTermTable(['bee hive', 'hive tattoo']), [buildTermTable(['hives bee'])], 1) // Uint8Array.of(0, 0, 1)
 */
export function findForeignWords(
  { dictionary, postingStarts }: TermTable,
  open: readonly TermTable[],
  most: number,
): Uint8Array {
  const known = new Set(
    open.flatMap(({ dictionary: words }) =>
      Array.from({ length: words.size }, (_, id) => stemOf(words.wordOf(id))),
    ),
  );
  return Uint8Array.from({ length: dictionary.size }, (_, id) => {
    const uses = postingStarts[id + 1]! - postingStarts[id]!;
    return uses <= most && !known.has(stemOf(dictionary.wordOf(id))) ? 1 : 0;
  });
}
