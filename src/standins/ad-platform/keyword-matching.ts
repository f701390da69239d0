import { normalise } from '@/core';
import type { PlatformQuery, Structure } from '@/contracts/platform';

/** A keyword that matches a query, or an ad group that serves it without one. */
export type Match = {
  adGroupId: string;
  keywordId: string | null;
  /** how near it is, 0 to 1 */
  fit: number;
};

/** A phrase that makes up a whole query fits as well as this; of a longer query it fits less. */
const PHRASE_FIT = 0.9;
const LEAST_OF_PHRASE = 0.6;
const AUTOMATIC_FIT = 0.8;
/** Of a broad keyword whose words the query only means, and of one whose words it holds. */
const BROAD_FIT = { meant: 0.45, held: 0.75 };

type Searched = Pick<PlatformQuery, 'text' | 'means' | 'automaticIn'>;
type Known = {
  adGroupId: string;
  keywordId: string;
  match: 'broad' | 'phrase' | 'exact';
  text: string;
  words: string[];
};

/**
 * Tells which keywords match a query, whoever may serve it now: exact where the texts are the same, phrase where the query holds
 * the words in order, broad where it holds or means each word.
 */
export function matcherOf({ keywords }: Pick<Structure, 'keywords'>): (query: Searched) => Match[] {
  const known = keywords.flatMap((k): Known[] => {
    const text = normalise(k.text);
    if (k.match === 'automatic' || k.status === 'removed' || text === '') return [];
    return [
      { adGroupId: k.adGroupId, keywordId: k.id, match: k.match, text: ` ${text} `, words: text.split(' ') },
    ];
  });
  const byWord = indexByRarestWord(known);
  return ({ text, means, automaticIn }) => {
    const words = normalise(text).split(' ');
    const held = new Set(words);
    const meant = new Set([...words, ...means]);
    const padded = ` ${words.join(' ')} `;
    const matches: Match[] = automaticIn.map((adGroupId) => ({
      adGroupId,
      keywordId: null,
      fit: AUTOMATIC_FIT,
    }));
    for (const word of meant)
      for (const keyword of byWord.get(word) ?? []) {
        const fit = fitOf(keyword, { words, held, meant, padded });
        if (fit > 0) matches.push({ adGroupId: keyword.adGroupId, keywordId: keyword.keywordId, fit });
      }
    return matches;
  };
}

/** 0 where the keyword does not match. */
function fitOf(
  { match, text, words }: Known,
  query: { words: string[]; held: Set<string>; meant: Set<string>; padded: string },
): number {
  if (match === 'exact') return text === query.padded ? 1 : 0;
  if (match === 'phrase') {
    if (!query.padded.includes(text)) return 0;
    return PHRASE_FIT * (LEAST_OF_PHRASE + (1 - LEAST_OF_PHRASE) * (words.length / query.words.length));
  }
  if (!words.every((word) => query.meant.has(word))) return 0;
  const held = words.filter((word) => query.held.has(word)).length / words.length;
  return BROAD_FIT.meant + (BROAD_FIT.held - BROAD_FIT.meant) * held;
}

/** Each keyword stands under that of its words which the fewest keywords hold: a query that matches it holds or means that word. */
function indexByRarestWord(known: readonly Known[]): ReadonlyMap<string, Known[]> {
  const holders = new Map<string, number>();
  for (const { words } of known)
    for (const word of new Set(words)) holders.set(word, (holders.get(word) ?? 0) + 1);
  const index = new Map<string, Known[]>();
  for (const keyword of known) {
    const rarest = keyword.words.reduce((a, b) => (holders.get(b)! < holders.get(a)! ? b : a));
    const under = index.get(rarest);
    if (under) under.push(keyword);
    else index.set(rarest, [keyword]);
  }
  return index;
}
