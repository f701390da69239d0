import TinyQueue from 'tinyqueue';
import { findRuns, type Run } from './runs';
import { waysWritten, writtenAt, type StemmedTexts } from './stemmed-texts';

export type GroupSettings = {
  /** fewest ideas of a group, from 1 */
  smallest: number;
  /** most words of the run that makes a group, from 1 */
  longest: number;
  /** most groups */
  most: number;
  /** 0 for few wide groups, 1 for many narrow ones */
  fineness: number;
  /** words that make no group alone (articles, say) */
  without: readonly string[];
};

/** Ideas that share a run of words. */
export type IdeaGroup = {
  /** the run, as it is written most, of equals by the text */
  text: string;
  /** indexes of the ideas, ascending */
  ideas: number[];
};

export type IdeaGroups = {
  /** in the order in which they were found */
  groups: IdeaGroup[];
  /** indexes of the ideas that are in none, ascending */
  left: number[];
};

/** A run that more ideas hold than this share of them parts nothing from anything. */
const TOO_COMMON = 0.5;
/** How much more a longer run is worth in the finest grouping: its ideas times its words to the power of this. */
const STRONGEST = 4;

/**
 * Groups ideas by the runs of words that they share, by stem (rules 16.3). One after another the run is taken that is worth most: its
 * ideas that are in no group yet, times a power of its words that grows with the fineness. The same ideas and settings always
 * give the same groups; an idea is in one at most.
 * @param ideas coded by `stemTexts`
 * @example groupIdeas(stemTexts(['hive kit', 'hive kits', 'bee suit']), { smallest: 2, longest: 2, most: 9, fineness: 1, without: [] }).left // [0, 1, 2]
 */
export function groupIdeas(ideas: StemmedTexts, settings: GroupSettings): IdeaGroups {
  const { smallest, longest, most, fineness } = settings;
  const ideaCount = ideas.starts.length - 1;
  const makesNone = new Set(settings.without.map((word) => ideas.findStem(word)));
  const isFree = new Uint8Array(ideaCount).fill(1);
  const weights = Float64Array.from({ length: longest + 1 }, (_, length) => length ** (STRONGEST * fineness));
  const worthOf = (run: Run, count: number) => count * weights[run.length]!;
  const candidates = findRuns(ideas, longest, Math.max(1, smallest))
    .filter((run) => run.ideas.length <= TOO_COMMON * ideaCount && !isOnly(ideas, run, makesNone))
    .map((run) => ({
      ...{ run, text: writtenAt(ideas, run.places[0]!, run.places[0]! + run.length) },
      worth: worthOf(run, run.ideas.length),
    }));
  const queue = new TinyQueue<Candidate>(candidates, compareCandidates);
  const groups: IdeaGroup[] = [];
  while (groups.length < most) {
    const best = queue.pop();
    if (!best) break;
    const { run } = best;
    const count = countMarked(run.ideas, isFree);
    if (count < Math.max(1, smallest)) continue; // it will never have more
    const worth = worthOf(run, count);
    if (worth < best.worth) {
      best.worth = worth;
      queue.push(best);
      continue;
    }
    const [free, places] = [new Array<number>(), new Array<number>()];
    for (let i = 0; i < run.ideas.length; i++) {
      const idea = run.ideas[i]!;
      if (isFree[idea] === 0) continue;
      isFree[idea] = 0;
      free.push(idea);
      places.push(run.places[i]!);
    }
    const [text] = waysWritten(ideas, places, run.length);
    groups.push({ text: text!, ideas: free });
  }
  return { groups, left: marked(isFree) };
}

type Candidate = { run: Run; text: string; worth: number };

/** What is worth most comes first; of equals the longer run, then by the text. */
function compareCandidates(a: Candidate, b: Candidate): number {
  return b.worth - a.worth || b.run.length - a.run.length || (a.text < b.text ? -1 : a.text > b.text ? 1 : 0);
}

function marked(isMarked: Uint8Array): number[] {
  const found: number[] = [];
  for (let i = 0; i < isMarked.length; i++) if (isMarked[i] === 1) found.push(i);
  return found;
}

function countMarked(items: Uint32Array, isMarked: Uint8Array): number {
  let count = 0;
  for (let i = 0; i < items.length; i++) count += isMarked[items[i]!]!;
  return count;
}

/** Whether a run has no other words than some. */
function isOnly(
  { stemIds }: StemmedTexts,
  { places, length }: Run,
  stems: ReadonlySet<number | undefined>,
): boolean {
  const from = places[0]!;
  for (let at = from; at < from + length; at++) if (!stems.has(stemIds[at]!)) return false;
  return true;
}
