import { stemOf, words, type Place } from '@/core';
import { derivedFrom } from '../../compute/derived';
import type { Snapshot } from '../../compute/snapshot';
import { whereItHangs } from '../lists/in-words';
import { knownLists } from '../lists/known-lists';
import type { Open } from '../open-workbench';

/** A list that a word would go into, and why. */
export type LikelyList = { place: Place & { kind: 'list'; id: string }; name: string; note: string };

/** Words shorter than that say nothing about what a list is for. */
const SHORTEST = 3;

/** Stems of the words of live keywords: what is sold says nothing about what a list is for. */
export const stemsOfKeywords = derivedFrom(
  ({ liveKeywords }: Snapshot) => new Set(liveKeywords.flatMap(({ text }) => words(text).map(stemOf))),
);

/** For each stem, the lists of words that hold it, in an entry or in their name, and where they do. */
const listsByStem = derivedFrom((open: Open) => {
  const ofKeywords = stemsOfKeywords(open.snapshot);
  const byStem = new Map<string, Map<string, string>>();
  const note = (text: string, listId: string, where: string) => {
    for (const word of words(text)) {
      const stem = stemOf(word);
      if (word.length < SHORTEST || ofKeywords.has(stem)) continue;
      const lists = byStem.get(stem) ?? new Map<string, string>();
      byStem.set(stem, lists);
      if (!lists.has(listId)) lists.set(listId, where);
    }
  };
  for (const { id, name, holds } of knownLists(open)) {
    if (holds !== 'words') continue;
    for (const entry of open.draft.gate.entriesAt({ kind: 'list', id }))
      note(entry.text, id, `“${entry.text}” stands there`);
    note(name, id, 'by its name');
  }
  return byStem;
});

/** The lists that hold a word alike (by stem, in an entry or in the name), by name. */
export function listsAlike(open: Open, ngram: string): LikelyList[] {
  const byStem = listsByStem(open);
  const alike = new Map<string, string>();
  for (const word of ngram.split(' '))
    for (const [listId, where] of byStem.get(stemOf(word)) ?? [])
      if (!alike.has(listId)) alike.set(listId, where);
  return knownLists(open).flatMap(({ id, name }) => {
    const where = alike.get(id);
    if (where === undefined) return [];
    const hangs = whereItHangs(open.draft.gate.hungOn(id), (c) => open.names.campaign(c) ?? c);
    return [{ place: { kind: 'list' as const, id }, name: `the list ${name}`, note: `${where}; ${hangs}` }];
  });
}
