import { stemOf, words } from '@/core';
import type { StoredIdea } from '../../repositories/research/ideas';

/** Texts whose words are forms of the same words, the shortest first, and the sources that gave them. */
export type FoldedCandidate = { forms: string[]; sources: number[] };

/** Texts whose words are forms of the same words are one; the shortest form is the first. */
export function foldCandidates(ideas: readonly StoredIdea[]): FoldedCandidate[] {
  const byStems = new Map<string, FoldedCandidate>();
  for (const { key, sources } of ideas) {
    const stems = words(key).map(stemOf).join(' ');
    const folded = byStems.get(stems) ?? { forms: [], sources: [] };
    byStems.set(stems, folded);
    folded.forms.push(key);
    folded.sources = [...new Set([...folded.sources, ...sources])];
  }
  for (const { forms } of byStems.values()) forms.sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
  return [...byStems.values()];
}
