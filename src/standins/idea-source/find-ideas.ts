import { stemOf, words } from '@/core';
import type { Idea, IdeasAnswer, Vocabulary } from '@/contracts/ideas';
import { asShare, hashOf } from '../mixed';

const PAGE = 200;
/** The share of ideas of which only a range is told. */
const VAGUE = 0.3;
/** Ranges as sources give them: each begins where the one before ends. */
const STEPS = [0, 10, 100, 1_000, 10_000, 100_000];

type Asked = {
  stems: readonly string[];
  /** of the vocabulary; another one is asked for less */
  location: string | undefined;
  from: 'most related' | 'least related';
  after: number;
};

/**
 * Ideas that share a word with a stem, or mean one, a page at a time. How related an idea is: how much of it and of the nearest stem is the
 * same, a meant word counting half.
 */
export function findIdeas(
  { phrases, locations }: Vocabulary,
  { stems, location, from, after }: Asked,
): IdeasAnswer {
  const asked = stems.map((stem) => new Set(words(stem).map(stemOf)));
  const place = location === undefined ? 0 : Math.max(0, locations.indexOf(location));
  const found: Idea[] = [];
  for (const phrase of phrases) {
    const relatedness = Math.max(0, ...asked.map((stem) => nearness(phrase, stem)));
    if (relatedness === 0) continue;
    // The first location is the home market; others ask for less.
    const volume = Math.round(phrase.volume / (1 + 3 * place));
    found.push({
      text: phrase.text,
      ...volumeTold(phrase.text, volume),
      openingBidMicros: phrase.openingBidMicros,
      relatedness: Math.round(1_000 * relatedness) / 1_000,
    });
  }
  const sign = from === 'most related' ? -1 : 1;
  found.sort((a, b) => sign * (a.relatedness - b.relatedness) || (a.text < b.text ? -1 : 1));
  const end = after + PAGE;
  return {
    ideas: found.slice(after, end),
    total: found.length,
    next: end < found.length ? String(end) : null,
  };
}

function nearness({ text, means }: Vocabulary['phrases'][number], stem: ReadonlySet<string>): number {
  const held = words(text).map(stemOf);
  const meant = new Set(means.map(stemOf));
  const shared = held.filter((word) => stem.has(word)).length;
  const alike = [...stem].filter((word) => !held.includes(word) && meant.has(word)).length;
  return (shared + alike / 2) / Math.max(held.length, stem.size);
}

/** The same idea is always told in the same way. */
function volumeTold(text: string, volume: number): Pick<Idea, 'volume' | 'volumeFrom' | 'volumeTo'> {
  if (asShare(hashOf(text)) >= VAGUE) return { volume, volumeFrom: null, volumeTo: null };
  const step = STEPS.findLastIndex((from) => volume >= from);
  return { volume: null, volumeFrom: STEPS[step]!, volumeTo: STEPS[step + 1] ?? 10 * STEPS[step]! };
}

const MOST_COMPLETIONS = 10;

/**
 * What people go on to type: phrases of which each word begins with the word that was typed in its place, most searched first.
 */
export function complete({ phrases }: Vocabulary, typed: string): string[] {
  const begun = words(typed);
  if (begun.length === 0) return [];
  return phrases
    .filter(({ text }) => {
      const of = text.split(' ');
      return of.length >= begun.length && begun.every((word, i) => of[i]!.startsWith(word));
    })
    .sort((a, b) => b.volume - a.volume || (a.text < b.text ? -1 : 1))
    .slice(0, MOST_COMPLETIONS)
    .map(({ text }) => text);
}
