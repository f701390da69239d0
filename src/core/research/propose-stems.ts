import { waysWritten, type StemmedTexts } from './stemmed-texts';

/** A word that many ideas hold in one form or another. */
export type Stem = {
  /** as it is written most, of equals by the text */
  text: string;
  /** ideas that hold a form of it */
  ideas: number;
};

/** A stem brings in at least this share of the ideas which no stem before it holds. */
const LEAST_SHARE = 0.05;
/** More stems say less. */
const MOST = 12;

/**
 * The words that a sheet is about (rules 16.2): one after another the word that most ideas hold of which no earlier one is held,
 * while that is a twentieth of all ideas or more.
 * @param without words that are no stem (articles, say)
 * @example proposeStems(stemTexts(['bee hive', 'hives', 'bee suit']), []).map(({ text }) => text) // ['bee', 'hive']
 */
export function proposeStems(ideas: StemmedTexts, without: readonly string[]): Stem[] {
  const { starts, stemIds, stemCount, findStem } = ideas;
  const ideaCount = starts.length - 1;
  const barred = new Set(without.map((word) => findStem(word)));
  const isHeld = new Uint8Array(ideaCount);
  const all = countIdeas(ideas, new Uint8Array(ideaCount));
  const found: Stem[] = [];
  while (found.length < MOST) {
    const left = countIdeas(ideas, isHeld);
    let best = -1;
    for (let stem = 0; stem < stemCount; stem++)
      if (!barred.has(stem) && (best < 0 || left[stem]! > left[best]!)) best = stem;
    if (best < 0 || left[best]! === 0 || left[best]! < LEAST_SHARE * ideaCount) break;
    found.push({ text: waysWritten(ideas, placesOf(ideas, best), 1)[0]!, ideas: all[best]! });
    for (let idea = 0; idea < ideaCount; idea++)
      for (let at = starts[idea]!; at < starts[idea + 1]!; at++) if (stemIds[at] === best) isHeld[idea] = 1;
  }
  return found;
}

/** How many ideas hold each stem, each once, without those that are marked. */
function countIdeas({ starts, stemIds, stemCount }: StemmedTexts, isMarked: Uint8Array): Uint32Array {
  const counts = new Uint32Array(stemCount);
  const lastIdea = new Int32Array(stemCount).fill(-1);
  for (let idea = 0; idea < isMarked.length; idea++) {
    if (isMarked[idea] === 1) continue;
    for (let at = starts[idea]!; at < starts[idea + 1]!; at++) {
      const stem = stemIds[at]!;
      if (lastIdea[stem] === idea) continue;
      lastIdea[stem] = idea;
      counts[stem]! += 1;
    }
  }
  return counts;
}

/** Where a stem stands in the words of the ideas. */
const placesOf = ({ stemIds }: StemmedTexts, stem: number): number[] =>
  [...stemIds.keys()].filter((at) => stemIds[at] === stem);
