import type { NegativeText } from '../gate';
import { matchingTexts, type TermTable } from '../mining';
import { variants, words, type Vocabulary } from '../text';

/**
 * Negatives that stop no text, and hold a word that occurs in none but is close to one that does (rules 8.1): people
 * meant that one.
 * @param known all texts that were ever served, and the words of these and of the keywords
 * @returns for each negative what it was meant to say, the nearest first; null where it is not misspelt
 * @example findMisspelt([{ text: 'documentry', match: 'phrase' }], { table: buildTermTable(['bee documentary']), vocabulary: compileVocabulary(['bee documentary']) }) // ['documentary']
 */
export function findMisspelt(
  negatives: readonly NegativeText[],
  known: { table: TermTable; vocabulary: Vocabulary },
): (string | null)[] {
  const { table, vocabulary } = known;
  const isKnown = (text: string) => words(text).every((word) => vocabulary.hasWord(word));
  return negatives.map((negative) => {
    if (isKnown(negative.text) || matchingTexts(table, negative).length > 0) return null;
    const meant = variants(negative.text, vocabulary).find(
      ({ text, how }) => (how === 'misspelt' || how === 'accent') && isKnown(text),
    );
    return meant?.text ?? null;
  });
}
