import { grown, numbersTo, sortByMeasure } from '../columns';
import { createNgramTable } from '../mining';
import { collectPostings } from './postings';
import { markStems, waysWritten, writtenAt, type StemmedTexts } from './stemmed-texts';

/**
 * What is left of ideas when the stems are taken out: runs of words, each of which several ideas may hold in several forms. By the
 * number of their ideas, of equals in the order in which the ideas tell them.
 */
export type Remainders = {
  /** each as it is written most, of equals by the text */
  texts: string[];
  /** how many ideas hold each */
  counts: Uint32Array;
  /** indexes of the ideas that hold a remainder, ascending; not to be changed */
  ideasOf(remainder: number): Uint32Array;
  /** all ways in which a remainder is written, the most frequent first */
  formsOf(remainder: number): string[];
  /** indexes of the ideas of which nothing is left, ascending */
  bare: number[];
};

/**
 * The remainders of ideas (rules 16.1): each piece that is left of an idea (7.6) is a remainder, and belongs to every idea
 * that holds it, in whatever forms of its words, within a piece. Time grows with the words of the ideas.
 * @param ideas coded by `stemTexts`
 * @param stems words that are taken out, with all their forms
 * @param struck texts that are taken out where they stand as they are (place names, say)
 * @example findRemainders(stemTexts(['bee salary', 'salaries of bees']), ['bee']).formsOf(0) // ['salaries', 'salary']
 */
export function findRemainders(
  ideas: StemmedTexts,
  stems: readonly string[],
  struck: readonly string[] = [],
): Remainders {
  const { stemIds, wordIds } = ideas;
  const pieces = findPieces(ideas, takenOut(ideas, stems, struck));
  // Each beginning of a piece is a number; a text is followed from each of its words only as far as some piece goes.
  const beginnings = createNgramTable();
  const ends = new Uint32Array(pieces.count);
  for (let piece = 0; piece < pieces.count; piece++) {
    let run = -1;
    for (let at = pieces.from[piece]!; at < pieces.to[piece]!; at++)
      run = beginnings.intern(run, stemIds[at]!);
    ends[piece] = run;
  }
  const { numberOf, lengths } = numbered(ends, beginnings.size, pieces);
  const postings = collectPostings(lengths.length);
  for (let piece = 0; piece < pieces.count; piece++) {
    const to = pieces.to[piece]!;
    for (let from = pieces.from[piece]!; from < to; from++) {
      let run = -1;
      for (let at = from; at < to; at++) {
        run = beginnings.find(run, stemIds[at]!);
        if (run < 0) break;
        if (numberOf[run]! >= 0) postings.note(numberOf[run]!, pieces.idea[piece]!, from);
      }
    }
  }
  const found = postings.finish();
  const order = sortByMeasure(
    numbersTo(lengths.length),
    Float64Array.from(found.counts, (count) => -count),
  );
  const formsOf = (remainder: number) => waysWritten(ideas, found.placesOf(remainder), lengths[remainder]!);
  return {
    texts: Array.from(order, (remainder) => {
      const place = found.onlyPlace(remainder, (one, other) =>
        isWrittenAlike(wordIds, one, other, lengths[remainder]!),
      );
      return place === undefined
        ? formsOf(remainder)[0]!
        : writtenAt(ideas, place, place + lengths[remainder]!);
    }),
    counts: order.map((remainder) => found.counts[remainder]!),
    ideasOf: (i) => found.ideasOf(order[i]!),
    formsOf: (i) => formsOf(order[i]!),
    bare: pieces.bare,
  };
}

function isWrittenAlike(wordIds: Uint32Array, one: number, other: number, length: number): boolean {
  for (let word = 0; word < length; word++) if (wordIds[one + word] !== wordIds[other + word]) return false;
  return true;
}

/** The pieces as remainders, each run once: the number of a run, −1 for one that is only the beginning of a piece. */
function numbered(ends: Uint32Array, runs: number, { from, to }: Pieces) {
  const numberOf = new Int32Array(runs).fill(-1);
  const lengths = new Uint32Array(ends.length);
  let count = 0;
  for (const [piece, run] of ends.entries()) {
    if (numberOf[run]! >= 0) continue;
    numberOf[run] = count;
    lengths[count++] = to[piece]! - from[piece]!;
  }
  return { numberOf, lengths: lengths.slice(0, count) };
}

/** 1 for each place in the words of the ideas that is taken out. */
function takenOut(ideas: StemmedTexts, stems: readonly string[], struck: readonly string[]): Uint8Array {
  const { dictionary, wordIds, stemIds, starts } = ideas;
  const isStem = markStems(ideas, stems);
  const isOut = new Uint8Array(wordIds.length);
  for (let at = 0; at < isOut.length; at++) isOut[at] = isStem[stemIds[at]!]!;
  const phrases = new Map<number, number[][]>();
  for (const text of struck) {
    const count = dictionary.code(text);
    const coded = [...dictionary.coded.subarray(0, count)];
    if (count === 0 || coded.includes(-1)) continue;
    phrases.set(coded[0]!, [...(phrases.get(coded[0]!) ?? []), coded]);
  }
  if (phrases.size === 0) return isOut;
  for (let idea = 0; idea + 1 < starts.length; idea++)
    for (let at = starts[idea]!; at < starts[idea + 1]!; at++)
      for (const phrase of phrases.get(wordIds[at]!) ?? []) {
        const isWhole = at + phrase.length <= starts[idea + 1]!;
        if (isWhole && phrase.every((word, i) => wordIds[at + i] === word))
          isOut.fill(1, at, at + phrase.length);
      }
  return isOut;
}

/** What is left of the ideas: piece p of idea[p] stands in the words from[p] .. to[p). */
type Pieces = { count: number; idea: Uint32Array; from: Uint32Array; to: Uint32Array; bare: number[] };

function findPieces({ starts }: StemmedTexts, isOut: Uint8Array): Pieces {
  let [idea, from, to] = [new Uint32Array(1 << 12), new Uint32Array(1 << 12), new Uint32Array(1 << 12)];
  const bare: number[] = [];
  let count = 0;
  for (let i = 0; i + 1 < starts.length; i++) {
    const before = count;
    const end = starts[i + 1]!;
    let begin = starts[i]!;
    for (let at = begin; at <= end; at++) {
      if (at < end && isOut[at] === 0) continue;
      if (at > begin) {
        if (count === idea.length)
          [idea, from, to] = [grown(idea, 2 * count), grown(from, 2 * count), grown(to, 2 * count)];
        idea[count] = i;
        from[count] = begin;
        to[count++] = at;
      }
      begin = at + 1;
    }
    if (count === before) bare.push(i);
  }
  return { count, idea, from, to, bare };
}
