import type { IdeaLines } from '@/core';
import type { GivenIdea } from '../../../repositories/research/ideas';

/** What one source gave. */
export type Gathered = {
  /** as people find it again among the sources of a sheet */
  title: string;
  /** each text once */
  ideas: GivenIdea[];
  /** what it did not give, in words; null where it gave all */
  missing: string | null;
  /** what was cleaned of a text, where one was read */
  lines?: IdeaLines;
};

/** An idea of which only the text is known. */
export const bareIdea = (key: string): GivenIdea => ({
  ...{ key, volume: null, volumeFrom: null, volumeTo: null },
  ...{ openingBidMicros: null, relatedness: null },
});

/** Each text once, the first of them. */
export function distinctIdeas(ideas: Iterable<GivenIdea>): GivenIdea[] {
  const byKey = new Map<string, GivenIdea>();
  for (const idea of ideas) if (idea.key !== '' && !byKey.has(idea.key)) byKey.set(idea.key, idea);
  return [...byKey.values()];
}
