import {
  BriefAnswerSchema,
  CompletionsAnswerSchema,
  IdeasAnswerSchema,
  SourceAnswerSchema,
  SourceFaultsSchema,
} from '@/contracts/ideas';
import { outsideCaller } from '../outside';
import type { IdeaSource } from './idea-source';

/** An idea source at an HTTP address, spoken to as src/contracts/ideas.ts says. */
export function createHttpIdeaSource(base: string, timeoutMs = 20_000): IdeaSource {
  const { json } = outsideCaller('The idea source', base, timeoutMs);
  return {
    about: () => json(SourceAnswerSchema, '/source'),
    ideas({ stems, location, language, from }, after) {
      const query = new URLSearchParams({ stems: stems.join(','), language, from });
      if (location !== null) query.set('location', location);
      if (after !== null) query.set('after', after);
      return json(IdeasAnswerSchema, `/ideas?${query.toString()}`);
    },
    completions: async (typed) =>
      (await json(CompletionsAnswerSchema, `/completions?${new URLSearchParams({ typed }).toString()}`))
        .completions,
    candidates: async (brief, round) =>
      (await json(BriefAnswerSchema, '/brief', { body: { brief, round } })).text,
    faults: (faults) => json(SourceFaultsSchema, '/faults', faults ? { body: faults, method: 'PUT' } : {}),
  };
}
