import type { NegativeText, Place } from '@/core';
import type { Few, Touched } from '@/contracts/common';
import {
  keywordsStoppedBy,
  keywordsThatConverted,
  few,
  protectedBy,
  touchedKeywords,
  type Workbench,
} from '../workbench';

/**
 * What negatives would hit of what must stay open: live keywords within a place, and protected terms wherever they stand.
 * @param rows of the window that they would stop
 */
export function hurtsOf(
  bench: Workbench,
  negatives: readonly NegativeText[],
  place: Place,
  rows: readonly number[],
): { keywords: Touched; protected: Few<string> } {
  const byText = negatives.flatMap((negative) => keywordsStoppedBy(bench, negative));
  const costly = keywordsThatConverted(bench.snapshot, rows);
  return {
    keywords: touchedKeywords(bench, bench.draft.gate, byText, place, costly),
    protected: few(protectedBy(bench, negatives)),
  };
}
