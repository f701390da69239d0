import levenshtein from 'damerau-levenshtein';
import { words } from './normalise';
import { compileVocabulary, lengthOf, type Vocabulary } from './vocabulary';

/** The ways in which a variant can be written, in the order in which they are looked for. */
export const VARIANT_KINDS = ['plural', 'verb form', 'joined', 'accent', 'misspelt'] as const;

export type Variant = { text: string; how: (typeof VARIANT_KINDS)[number] };

/**
 * Texts that mean the same and occur in the data, each with one word, or one pair of words, written another way
 * (rules 8). Negatives match literally, so these would pass.
 * @param vocabulary texts that occur, or what `compileVocabulary` made of them (for many questions)
 * @returns each text once, under the first of the ways above that makes it; by the place of the word, then by way
 * @example variants('bee hives', ['bee hive kit', 'beehives']) // [{ text: 'beehives', how: 'joined' }, { text: 'bee hive', how: 'plural' }]
 */
export function variants(text: string, vocabulary: Iterable<string> | Vocabulary): Variant[] {
  const known = 'hasWord' in vocabulary ? vocabulary : compileVocabulary(vocabulary);
  const of = words(text);
  const found = new Map<string, Variant>();
  const offer = (at: number, length: number, by: string, how: Variant['how']) => {
    const other = [...of.slice(0, at), by, ...of.slice(at + length)].join(' ');
    if (other !== of.join(' ') && !found.has(other)) found.set(other, { text: other, how });
  };
  of.forEach((word, at) => {
    const next = of[at + 1];
    if (next !== undefined && known.hasWord(word + next)) offer(at, 2, word + next, 'joined');
    for (const plural of known.bySingular(word)) offer(at, 1, plural, 'plural');
    for (const form of known.byStem(word)) if (areVerbForms(word, form)) offer(at, 1, form, 'verb form');
    for (const split of splitsOf(word, known)) offer(at, 1, split, 'joined');
    for (const other of known.byPlain(word)) offer(at, 1, other, 'accent');
    for (const near of misspellings(word, known)) offer(at, 1, near, 'misspelt');
  });
  return [...found.values()];
}

/** Of words with one stem: those that differ by -s, -ing and -ed only, and not by another ending. */
function areVerbForms(a: string, b: string): boolean {
  const bare = (word: string) => word.replace(/(?<=..)(ing|ed|es|s)$/u, '');
  const isInflected = /(ing|ed)$/u.test(a) || /(ing|ed)$/u.test(b);
  return isInflected && Math.abs(bare(a).length - bare(b).length) <= 1;
}

function splitsOf(word: string, known: Vocabulary): string[] {
  const letters = [...word];
  return letters.flatMap((_, at) => {
    const [first, second] = [letters.slice(0, at).join(''), letters.slice(at).join('')];
    return at > 0 && known.hasPair(first, second) ? [`${first} ${second}`] : [];
  });
}

/** Distance 1 for words of 5 letters or more, 2 for 9 or more; a swap of neighbours is one step. */
function misspellings(word: string, known: Vocabulary): string[] {
  const length = lengthOf(word);
  const most = length >= 9 ? 2 : length >= 5 ? 1 : 0;
  if (most === 0) return [];
  const letters = letterSet(word);
  const found: { other: string; steps: number }[] = [];
  for (let other = length - most; other <= length + most; other++) {
    for (const candidate of known.ofLength(other)) {
      if (candidate === word || bits(letters ^ letterSet(candidate)) > 2 * most) continue; // too many letters differ
      const { steps } = levenshtein(word, candidate);
      if (steps <= most) found.push({ other: candidate, steps });
    }
  }
  return found.sort((a, b) => a.steps - b.steps || (a.other < b.other ? -1 : 1)).map(({ other }) => other);
}

/** One bit for each letter that occurs; letters beyond a–z share bits, so the filter only ever lets more through. */
function letterSet(word: string): number {
  let set = 0;
  for (let i = 0; i < word.length; i++) set |= 1 << (word.charCodeAt(i) & 31);
  return set;
}

function bits(set: number): number {
  let count = 0;
  for (let rest = set; rest !== 0; rest &= rest - 1) count++;
  return count;
}
