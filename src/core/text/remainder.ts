import { words } from './normalise';
import { stemOf } from './stem';

/**
 * What is left of a text when the words that share a stem with a given word are taken out (rules 7.6).
 * @returns pieces in order, cut where words were taken out; none when nothing is left
 * @example remainder('beginners bee hive kit', ['bee hives']) // ['beginners', 'kit']
 */
export function remainder(text: string, given: readonly string[]): string[] {
  const stems = new Set(given.flatMap((g) => words(g)).map(stemOf));
  const pieces: string[][] = [[]];
  for (const word of words(text)) {
    if (stems.has(stemOf(word))) pieces.push([]);
    else pieces.at(-1)!.push(word);
  }
  return pieces.filter((piece) => piece.length > 0).map((piece) => piece.join(' '));
}
