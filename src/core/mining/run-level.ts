import { FIGURE_NAMES, spendWithoutReturn, type Figures } from '../figures';
import { createRunSums, type RunSums, type TermFigures } from './run-sums';
import { createRunTable, type RunTable } from './runs';
import type { CodedTexts } from './term-table';

/** Terms of a table with their figures; `term` is an index into it. */
export type CodedTerms = readonly ({ term: number } & Partial<Figures>)[];

type Measure = 'costMicros' | 'withoutReturnMicros';

/** All runs of one length. */
export type RunLevel = {
  size: number;
  /** what a run is made of: a run of the level before and a last word; null at the first, where a run is its word */
  runs: RunTable | null;
  sums: RunSums;
  valueOf(run: number, by: Measure): number;
  /** the run that begins at each word of the terms, one term after another; −1 where none does, or none that counts */
  beginsAt: Int32Array;
};

/**
 * Counts the runs that are one word longer than those of the last level.
 * @param wanted a run of the last level that has less than `least` of `by` is in none; sums only where they are needed
 */
export function countLevel(
  table: CodedTexts,
  terms: CodedTerms,
  levels: readonly RunLevel[],
  { by, least, isSummed }: { by: Measure; least: number; isSummed: boolean },
): RunLevel {
  const { starts, wordIds } = table;
  const before = levels.at(-1);
  const counts = before && whichCount(before, by, least);
  const runs = before ? createRunTable() : null;
  const sums = createRunSums();
  const beginsAt = new Int32Array(before?.beginsAt.length ?? wordsIn(table, terms)).fill(-1);
  const figures: TermFigures = {
    term: 0,
    values: new Float64Array(FIGURE_NAMES.length),
    withoutReturnMicros: 0,
  };
  let offset = 0;
  for (const term of terms) {
    const start = starts[term.term]!;
    const length = starts[term.term + 1]! - start;
    if (isSummed) read(term, figures);
    for (let i = 0; i + levels.length < length; i++) {
      let run = wordIds[start + i]!;
      if (runs) {
        const first = before!.beginsAt[offset + i]!;
        const rest = before!.beginsAt[offset + i + 1]!;
        if (first < 0 || rest < 0 || counts![first] === 0 || counts![rest] === 0) continue;
        run = runs.intern(first, wordIds[start + i + levels.length]!);
      }
      beginsAt[offset + i] = run;
      if (isSummed) sums.add(run, figures);
    }
    offset += length;
  }
  return {
    ...{ size: runs?.size ?? table.dictionary.size, runs, sums, beginsAt },
    valueOf: (run, measure) => (measure === 'costMicros' ? sums.costOf(run) : sums.withoutReturnOf(run)),
  };
}

function whichCount(level: RunLevel, by: Measure, least: number): Uint8Array {
  const counts = new Uint8Array(level.size).fill(1);
  if (least === -Infinity) return counts;
  for (let run = 0; run < level.size; run++) if (level.valueOf(run, by) < least) counts[run] = 0;
  return counts;
}

function wordsIn({ starts }: CodedTexts, terms: CodedTerms): number {
  let count = 0;
  for (const { term } of terms) count += starts[term + 1]! - starts[term]!;
  return count;
}

function read(term: { term: number } & Partial<Figures>, into: TermFigures) {
  into.term = term.term;
  into.values[0] = term.impressions ?? NaN;
  into.values[1] = term.clicks ?? NaN;
  into.values[2] = term.costMicros ?? NaN;
  into.values[3] = term.conversions ?? NaN;
  into.values[4] = term.valueMicros ?? NaN;
  into.withoutReturnMicros = spendWithoutReturn(term);
}
