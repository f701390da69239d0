import type { Figures } from '../../figures';
import type { RunSums } from './run-sums';
import { createRunValues, type RunValues } from './run-values';
import { createRunTable, type RunTable } from './runs';
import type { CodedTexts } from '../texts/term-table';

/** Terms of a table with their figures; `term` is an index into it. */
export type CodedTerms = readonly ({ term: number } & Partial<Figures>)[];

/** All runs of one length. */
export type RunLevel = {
  size: number;
  /** what a run is made of: a run of the level before and a last word; null at the first, where a run is its word */
  runs: RunTable | null;
  values: RunValues;
  /** the run that begins at each word of the terms, one term after another; −1 where none does, or none that counts */
  beginsAt: Int32Array;
};

/**
 * Finds the runs that are one word longer than those of the last level, and their values.
 * @param terms their indexes in the table
 * @param values of the terms, in their order
 * @param least a run of the last level with a smaller value is in none
 */
export function countLevel(
  table: CodedTexts,
  terms: Uint32Array,
  values: Float64Array,
  levels: readonly RunLevel[],
  least: number,
): RunLevel {
  const { starts, wordIds } = table;
  const before = levels.at(-1);
  const counts = before && whichCount(before, least);
  const runs = before ? createRunTable() : null;
  const found = createRunValues(runs ? 0 : table.dictionary.size);
  const isAll = !before && terms.length + 1 === starts.length && terms.every((term, t) => term === t);
  const beginsAt = isAll
    ? new Int32Array(wordIds.buffer, wordIds.byteOffset, wordIds.length) // the same, read as such
    : new Int32Array(before?.beginsAt.length ?? wordsIn(table, terms)).fill(-1);
  let offset = 0;
  for (let t = 0; t < terms.length; t++) {
    const term = terms[t]!;
    const start = starts[term]!;
    const length = starts[term + 1]! - start;
    for (let i = 0; i + levels.length < length; i++) {
      let run = wordIds[start + i]!;
      if (runs) {
        const first = before!.beginsAt[offset + i]!;
        const rest = before!.beginsAt[offset + i + 1]!;
        if (first < 0 || rest < 0 || counts![first] === 0 || counts![rest] === 0) continue;
        run = runs.intern(first, wordIds[start + i + levels.length]!);
      }
      if (!isAll) beginsAt[offset + i] = run;
      found.add(run, term, values[t]!);
    }
    offset += length;
  }
  return { size: runs?.size ?? table.dictionary.size, runs, values: found, beginsAt };
}

/**
 * Sums the figures of the terms that hold some runs, each term read once.
 * @param slotsOf for each level, where the sums of a run go, −1 for a run that is not wanted
 */
export function sumLevels(
  { starts }: CodedTexts,
  terms: CodedTerms,
  levels: readonly RunLevel[],
  slotsOf: readonly Int32Array[],
  sums: RunSums,
): void {
  let offset = 0;
  for (const term of terms) {
    const end = offset + starts[term.term + 1]! - starts[term.term]!;
    sums.turnTo(term);
    for (let l = 0; l < levels.length; l++) {
      const { beginsAt } = levels[l]!;
      const slots = slotsOf[l]!;
      for (let i = offset; i < end; i++) {
        const run = beginsAt[i]!;
        if (run >= 0 && slots[run]! >= 0) sums.add(slots[run]!);
      }
    }
    offset = end;
  }
}

function whichCount(level: RunLevel, least: number): Uint8Array {
  const counts = new Uint8Array(level.size).fill(1);
  if (least === -Infinity) return counts;
  for (let run = 0; run < level.size; run++) if (level.values.valueOf(run) < least) counts[run] = 0;
  return counts;
}

function wordsIn({ starts }: CodedTexts, terms: Uint32Array): number {
  let count = 0;
  for (const term of terms) count += starts[term + 1]! - starts[term]!;
  return count;
}
