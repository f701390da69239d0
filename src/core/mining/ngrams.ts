import { grown } from '../columns';
import { addFigures, FIGURE_NAMES, noFigures, spendWithoutReturn, type Figures } from '../figures';
import { normalise } from '../text';
import { createRunTable } from './runs';
import { buildTermTable, type TermTable } from './term-table';

export type Ngram = {
  ngram: string;
  terms: number;
  /** cost of its terms whose conversions are 0 (rules 7.2), micro-units */
  withoutReturnMicros: number;
} & Figures;

export type NgramSize = 1 | 2 | 3 | 4 | 5;

/**
 * Runs of n neighbouring words with the sums of the terms that hold them (rules 7.5), costliest first, then by text.
 * Terms of the same text are summed first; a run counts once for each distinct term, however often it repeats in it.
 * Product codes are the caller's to leave out.
 * @throws RangeError unless n is 1..5
 * @example countNgrams([{ text: 'bee hive', clicks: 2 }], 1).map((g) => g.ngram) // ['bee', 'hive']
 */
export function countNgrams(terms: Iterable<{ text: string } & Partial<Figures>>, n: NgramSize): Ngram[] {
  const distinct = distinctTerms(terms);
  const figures = [...distinct.values()];
  return countRuns(
    buildTermTable([...distinct.keys()]),
    figures.map((of, term) => ({ term, ...of })),
    n,
  );
}

/** The same over terms that are coded already; `term` is an index into the table, each at most once. */
export function countRuns(
  table: TermTable,
  terms: readonly ({ term: number } & Partial<Figures>)[],
  n: NgramSize,
): Ngram[] {
  if (![1, 2, 3, 4, 5].includes(n)) throw new RangeError(`n-gram size must be 1..5; got ${String(n)}`);
  const runs = createRunTable();
  const sums = createSums();
  for (const figures of terms) {
    for (let at = table.starts[figures.term]!; at + n <= table.starts[figures.term + 1]!; at++) {
      let run = -1;
      for (let i = 0; i < n; i++) run = runs.intern(run, table.wordIds[at + i]!);
      sums.add(run, figures.term, figures);
    }
  }
  const textOf = (run: number) =>
    runs
      .wordsOf(run)
      .map((word) => table.dictionary.wordOf(word))
      .join(' ');
  return sums
    .runs()
    .map((run) => ({ ngram: textOf(run), ...sums.of(run) }))
    .sort((a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0) || (a.ngram < b.ngram ? -1 : 1));
}

function distinctTerms(terms: Iterable<{ text: string } & Partial<Figures>>): Map<string, Figures> {
  const distinct = new Map<string, Figures>();
  for (const term of terms) {
    const text = normalise(term.text);
    if (text === '') continue;
    let sum = distinct.get(text);
    if (!sum) distinct.set(text, (sum = noFigures()));
    addFigures(sum, term);
  }
  return distinct;
}

/** Sums of figures by run, in columns that grow; a run that repeats in a term is added once. */
function createSums() {
  const columns = FIGURE_NAMES.length;
  let room = 1 << 12;
  /** figure f of run r is sums[r · 5 + f], known where bit f of known[r] is set */
  let sums = new Float64Array(room * columns);
  let known = new Uint32Array(room);
  let without = new Float64Array(room);
  let terms = new Uint32Array(room);
  /** the term that was added to a run last, + 1 */
  let last = new Uint32Array(room);

  function makeRoom(runs: number) {
    room = Math.max(2 * room, runs);
    sums = grown(sums, room * columns);
    without = grown(without, room);
    [known, terms, last] = [grown(known, room), grown(terms, room), grown(last, room)];
  }

  return {
    add(run: number, term: number, figures: Partial<Figures>) {
      if (run >= room) makeRoom(run + 1);
      if (last[run] === term + 1) return;
      last[run] = term + 1;
      terms[run]! += 1;
      for (let f = 0; f < columns; f++) {
        const value = figures[FIGURE_NAMES[f]!];
        if (value === null || value === undefined) continue;
        sums[run * columns + f]! += value;
        known[run]! |= 1 << f;
      }
      without[run]! += spendWithoutReturn(figures);
    },
    /** Runs to which something was added: the others are only the beginnings of longer ones. */
    runs: () => Array.from(terms.keys()).filter((run) => terms[run]! > 0),
    of(run: number): Omit<Ngram, 'ngram'> {
      const figures = noFigures();
      FIGURE_NAMES.forEach((name, f) => {
        if ((known[run]! & (1 << f)) !== 0) figures[name] = sums[run * columns + f]!;
      });
      return { terms: terms[run]!, withoutReturnMicros: without[run]!, ...figures };
    },
  };
}
