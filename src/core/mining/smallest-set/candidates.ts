import { matchSlice, type NegativeText } from '../../gate';
import { lengthOf, normalise } from '../../text';
import { createNgramTable } from '../ngrams/ngram-ids';
import { buildTermTable, type TermTable } from '../texts/term-table';

/**
 * What can be chosen for some unwanted terms: n-grams of 1 to 4 words (phrase) and whole texts (exact) that stop no open
 * term. Preferred ones come first.
 */
export type Candidates = {
  count: number;
  negativeAt(candidate: number): NegativeText;
  /** in words, in characters, and whether it is exact: what is preferred among equals (rules 9.1) */
  words: Uint8Array;
  characters: Uint32Array;
  isExact: Uint8Array;
  /** Candidate j stops the terms stops[starts[j] .. starts[j + 1]), ascending. */
  starts: Uint32Array;
  stops: Uint32Array;
  /** cost of each distinct unwanted term, micro-units */
  costs: Float64Array;
};

const LONGEST_NGRAM = 4;

/**
 * @param options `holding`: an n-gram that every unwanted text holds and every negative must; `isEachKept`: of those that
 * stop the same unwanted terms all are wanted, not the preferred one alone
 */
export function makeCandidates(
  unwanted: readonly { text: string; costMicros: number }[],
  open: readonly string[],
  { holding, isEachKept = false }: { holding?: string; isEachKept?: boolean } = {},
): Candidates {
  const costOf = new Map<string, number>();
  for (const { text, costMicros } of unwanted) {
    const key = normalise(text);
    if (key !== '' && costMicros > 0) costOf.set(key, (costOf.get(key) ?? 0) + costMicros);
  }
  const texts = [...costOf.keys()];
  const table = buildTermTable(texts);
  const lengths = Uint32Array.from({ length: table.dictionary.size }, (_, w) =>
    lengthOf(table.dictionary.wordOf(w)),
  );
  const phrases = phrasesOf(table, lengths, open);
  const holds = holdingTest(table, holding);
  const all = [
    ...phrases.found.filter(({ ngram }) => holds(phrases.wordsOf(ngram))),
    ...exactsOf(table, lengths, texts, new Set(open.map(normalise))),
  ];
  const ordered = (isEachKept ? all : preferred(all)).sort(comparePreference);

  const starts = new Uint32Array(ordered.length + 1);
  ordered.forEach(({ stops }, j) => (starts[j + 1] = starts[j]! + stops.length));
  const stops = new Uint32Array(starts[ordered.length]!);
  ordered.forEach((candidate, j) => stops.set(candidate.stops, starts[j]));
  return {
    count: ordered.length,
    negativeAt(j) {
      const { ngram, stops: of } = ordered[j]!;
      return ngram < 0
        ? { text: texts[of[0]!]!, match: 'exact' }
        : { text: phrases.textOf(ngram), match: 'phrase' };
    },
    words: Uint8Array.from(ordered, (c) => Math.min(255, c.words)),
    characters: Uint32Array.from(ordered, (c) => c.characters),
    isExact: Uint8Array.from(ordered, (c) => (c.ngram < 0 ? 1 : 0)),
    ...{ starts, stops, costs: Float64Array.from(costOf.values()) },
  };
}

/** Whether words of the table hold an n-gram as a phrase; all do where none is asked for. */
function holdingTest({ dictionary }: TermTable, ngram: string | undefined): (words: number[]) => boolean {
  if (ngram === undefined) return () => true;
  const count = dictionary.code(ngram);
  const wanted = dictionary.coded.slice(0, count);
  return (words) => matchSlice('phrase', wanted, 0, count, words);
}

/** An n-gram, or (−1) the whole text of the one term it stops. */
type Candidate = { ngram: number; words: number; characters: number; stops: Uint32Array };

/** N-grams of the unwanted texts, without those that stand in an open one. */
function phrasesOf(table: TermTable, lengths: Uint32Array, open: readonly string[]) {
  const { starts, wordIds, dictionary } = table;
  const ngrams = createNgramTable();
  /** n-grams as they occur, and the term of each; an n-gram that repeats in a term once */
  const occurring: number[] = [];
  const ofTerm: number[] = [];
  /** what is known of each n-gram: the term it was seen in last, its terms, words and characters */
  const seenIn: number[] = [];
  const uses: number[] = [];
  const words: number[] = [];
  const characters: number[] = [];
  for (let t = 0; t + 1 < starts.length; t++) {
    for (let at = starts[t]!; at < starts[t + 1]!; at++) {
      let ngram = -1;
      let length = -1; // spaces stand between words only
      for (let i = at; i < Math.min(at + LONGEST_NGRAM, starts[t + 1]!); i++) {
        ngram = ngrams.intern(ngram, wordIds[i]!);
        length += lengths[wordIds[i]!]! + 1;
        if (seenIn[ngram] === t) continue;
        if (seenIn[ngram] === undefined) {
          uses[ngram] = 0;
          words[ngram] = i - at + 1;
          characters[ngram] = length;
        }
        seenIn[ngram] = t;
        uses[ngram]! += 1;
        occurring.push(ngram);
        ofTerm.push(t);
      }
    }
  }
  const isOpen = new Uint8Array(ngrams.size);
  for (const text of open) {
    const count = dictionary.code(text);
    for (let at = 0; at < count; at++) {
      let ngram = -1;
      for (let i = at; i < Math.min(at + LONGEST_NGRAM, count) && (ngram >= 0 || i === at); i++) {
        ngram = dictionary.coded[i]! < 0 ? -1 : ngrams.find(ngram, dictionary.coded[i]!);
        if (ngram >= 0) isOpen[ngram] = 1;
      }
    }
  }
  const ends = new Uint32Array(ngrams.size + 1);
  for (let ngram = 0; ngram < ngrams.size; ngram++) ends[ngram + 1] = ends[ngram]! + uses[ngram]!;
  const next = ends.slice();
  const stops = new Uint32Array(occurring.length);
  occurring.forEach((ngram, i) => (stops[next[ngram]!++] = ofTerm[i]!));
  const found: Candidate[] = [];
  for (let ngram = 0; ngram < ngrams.size; ngram++) {
    if (isOpen[ngram] === 1) continue;
    const of = stops.subarray(ends[ngram], ends[ngram + 1]);
    found.push({ ngram, words: words[ngram]!, characters: characters[ngram]!, stops: of });
  }
  const textOf = (ngram: number) =>
    ngrams
      .wordsOf(ngram)
      .map((word) => dictionary.wordOf(word))
      .join(' ');
  return { found, textOf, wordsOf: (ngram: number) => ngrams.wordsOf(ngram) };
}

function exactsOf(
  { starts, wordIds }: TermTable,
  lengths: Uint32Array,
  texts: readonly string[],
  isOpen: ReadonlySet<string>,
): Candidate[] {
  return texts.flatMap((text, t): Candidate[] => {
    if (isOpen.has(text)) return [];
    const of = wordIds.subarray(starts[t], starts[t + 1]);
    const characters = of.reduce((sum, word) => sum + lengths[word]!, of.length - 1);
    return [{ ngram: -1, words: of.length, characters, stops: Uint32Array.of(t) }];
  });
}

/** Of those that stop the same terms, the one that is preferred. */
function preferred(all: readonly Candidate[]): Candidate[] {
  const alike = new Map<number, Candidate[]>();
  for (const candidate of all) {
    const key = hashOf(candidate.stops);
    const others = alike.get(key);
    if (!others) {
      alike.set(key, [candidate]);
      continue;
    }
    const same = others.findIndex((other) => stopTheSame(other, candidate));
    if (same < 0) others.push(candidate);
    else if (comparePreference(candidate, others[same]!) < 0) others[same] = candidate;
  }
  return [...alike.values()].flat();
}

function hashOf(stops: Uint32Array): number {
  let hash = stops.length;
  for (let i = 0; i < stops.length; i++) hash = Math.imul(hash ^ stops[i]!, 0x9e3779b1) + i;
  return hash | 0;
}

function stopTheSame({ stops: a }: Candidate, { stops: b }: Candidate): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** Rules 9: fewer words, then fewer characters, then exact before phrase; then what was met first. */
function comparePreference(a: Candidate, b: Candidate): number {
  return (
    a.words - b.words ||
    a.characters - b.characters ||
    Number(b.ngram < 0) - Number(a.ngram < 0) ||
    a.ngram - b.ngram
  );
}
