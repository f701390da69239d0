import { matchingTexts, type TermTable } from './term-table';

/**
 * Which texts hold one of some n-grams.
 * @returns 1 for each text that does, 0 for the others
 * @example textsHolding(buildTermTable(['hive new york', 'york hive']), ['New York']) // Uint8Array.of(1, 0)
 */
export function textsHolding(table: TermTable, ngrams: Iterable<string>): Uint8Array {
  const holds = new Uint8Array(table.starts.length - 1);
  for (const text of ngrams) for (const t of matchingTexts(table, { text, match: 'phrase' })) holds[t] = 1;
  return holds;
}
