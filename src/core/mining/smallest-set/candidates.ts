import type { NegativeText } from '../../gate';
import { normalise } from '../../text';
import { createRunTable } from '../runs';
import { buildTermTable, type TermTable } from '../term-table';

/**
 * What can be chosen for some unwanted terms: runs of 1 to 4 words (phrase) and whole texts (exact) that stop no open
 * term. Of those that stop the same terms only the one preferred is here; preferred ones come first.
 */
export type Candidates = {
  negatives: NegativeText[];
  /** Candidate j stops the terms stops[starts[j] .. starts[j + 1]), ascending. */
  starts: Uint32Array;
  stops: Uint32Array;
  /** cost of each distinct unwanted term, micro-units */
  costs: Float64Array;
};

const LONGEST_RUN = 4;

export function makeCandidates(
  unwanted: readonly { text: string; costMicros: number }[],
  open: readonly string[],
): Candidates {
  const costOf = new Map<string, number>();
  for (const { text, costMicros } of unwanted) {
    const key = normalise(text);
    if (key !== '' && costMicros > 0) costOf.set(key, (costOf.get(key) ?? 0) + costMicros);
  }
  const texts = [...costOf.keys()];
  const isOpen = new Set(open.map(normalise));
  const table = buildTermTable(texts);
  const found = [...phrases(table, open), ...exacts(table, texts, isOpen)];
  const distinct = preferred(found).sort((a, b) => comparePreference(a, b));
  const starts = new Uint32Array(distinct.length + 1);
  distinct.forEach(({ stops }, j) => (starts[j + 1] = starts[j]! + stops.length));
  const stops = new Uint32Array(starts[distinct.length]!);
  distinct.forEach((candidate, j) => stops.set(candidate.stops, starts[j]));
  return {
    negatives: distinct.map(({ text, match }) => ({ text, match })),
    ...{ starts, stops, costs: Float64Array.from(costOf.values()) },
  };
}

type Candidate = NegativeText & { words: number; stops: number[] };

/** Runs of the unwanted texts, without those that stand in an open one. */
function phrases(table: TermTable, open: readonly string[]): Candidate[] {
  const { starts, wordIds, dictionary } = table;
  const runs = createRunTable();
  const stops: number[][] = [];
  for (let t = 0; t + 1 < starts.length; t++) {
    for (let at = starts[t]!; at < starts[t + 1]!; at++) {
      let run = -1;
      for (let i = at; i < Math.min(at + LONGEST_RUN, starts[t + 1]!); i++) {
        run = runs.intern(run, wordIds[i]!);
        const of = (stops[run] ??= []);
        if (of.at(-1) !== t) of.push(t);
      }
    }
  }
  for (const text of open) {
    const count = dictionary.code(text);
    for (let at = 0; at < count; at++) {
      let run = -1;
      for (let i = at; i < Math.min(at + LONGEST_RUN, count) && (run >= 0 || i === at); i++) {
        run = dictionary.coded[i]! < 0 ? -1 : runs.find(run, dictionary.coded[i]!);
        if (run >= 0) stops[run] = [];
      }
    }
  }
  return stops.flatMap((of, run): Candidate[] => {
    if (of.length === 0) return [];
    const words = runs.wordsOf(run);
    const text = words.map((word) => dictionary.wordOf(word)).join(' ');
    return [{ text, match: 'phrase', words: words.length, stops: of }];
  });
}

function exacts({ starts }: TermTable, texts: readonly string[], isOpen: ReadonlySet<string>): Candidate[] {
  return texts.flatMap((text, t): Candidate[] =>
    isOpen.has(text) ? [] : [{ text, match: 'exact', words: starts[t + 1]! - starts[t]!, stops: [t] }],
  );
}

/** One of those that stop the same terms. */
function preferred(all: readonly Candidate[]): Candidate[] {
  const best = new Map<string, Candidate>();
  for (const candidate of all) {
    const key = candidate.stops.join();
    const other = best.get(key);
    if (!other || comparePreference(candidate, other) < 0) best.set(key, candidate);
  }
  return [...best.values()];
}

/** Rules 9: fewer words, then fewer characters, then exact before phrase; then by text, so that answers never vary. */
function comparePreference(a: Candidate, b: Candidate): number {
  if (a.words !== b.words) return a.words - b.words;
  const length = [...a.text].length - [...b.text].length;
  if (length !== 0) return length;
  if (a.match !== b.match) return a.match === 'exact' ? -1 : 1;
  return a.text < b.text ? -1 : 1;
}
