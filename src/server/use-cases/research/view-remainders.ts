import type * as v from 'valibot';
import { matchTexts, normalise, positionsOfNgram, words } from '@/core';
import {
  IDEA_STATES,
  type HoldingQuerySchema,
  type HoldingSchema,
  type IdeaFilters,
  type IdeaState,
  type RemaindersPage,
  type RemaindersQuery,
} from '@/contracts/research';
import { foldCandidates } from '../../compute/research/fold-candidates';
import { locationNamer } from '../../compute/locations/name-locations';
import { faultsByNgram, remainderLines, searchesOf } from '../../compute/research/remainder-lines';
import { ideaTableOf, remaindersOf } from '../../compute/research/sheet-content';
import type { Deps } from '../deps';
import { lookAt } from './look-at';

/**
 * A page of what is left of the ideas of a sheet, with the counts of all states under the same filters.
 * @throws Refusal when there is no such sheet
 */
export async function viewRemainders(
  deps: Deps,
  slug: string,
  sheetId: number,
  query: RemaindersQuery,
): Promise<RemaindersPage> {
  const { account, open, sheet, content, states, passes, isShown, isCandidate } = await lookAt(
    deps,
    slug,
    sheetId,
    query,
    [query.state],
  );
  const counts = Object.fromEntries(IDEA_STATES.map((state) => [state, 0])) as Record<IdeaState, number>;
  for (const [i, state] of states.entries()) if (passes[i] === 1 && !isCandidate[i]) counts[state] += 1;
  const remainders = remaindersOf(content, sheet);
  const faults = faultsByNgram(open.snapshot, account);
  const page = remainderLines(content, remainders, isShown, faults, query);
  const nameIn = locationNamer(open.saidOfLocations);
  return {
    ...{
      version: sheet.version,
      counts,
      total: page.total,
      offset: query.offset,
      lines: page.lines.map((line) => ({ ...line, location: nameIn(normalise(line.text))[0]?.kind ?? null })),
    },
    bare: remainders.bare.filter((i) => isShown[i] === 1).length,
    candidates: foldCandidates(content.ideas.filter((_, i) => isCandidate[i] && states[i] === 'open')).length,
  };
}

/** The ideas under the filters that hold a remainder or another run of words, most searched first. @throws Refusal when there is no such sheet */
export async function viewHolding(
  deps: Deps,
  slug: string,
  sheetId: number,
  { remainder, most, ...filters }: v.InferOutput<typeof HoldingQuerySchema>,
): Promise<v.InferOutput<typeof HoldingSchema>> {
  const look = await lookAt(deps, slug, sheetId, filters, [filters.state]);
  const ideas = holders(look, remainder)
    .map((i) => look.content.ideas[i]!)
    .map(({ key, sources, ...figures }) => ({ key, sources, volume: searchesOf(figures) }))
    .sort((a, b) => (b.volume ?? 0) - (a.volume ?? 0) || (a.key < b.key ? -1 : 1));
  const markChosen = (key: string) => {
    const chosen = new Set(positionsOfNgram(words(key), normalise(remainder)));
    return words(key).map((text, at) => ({ text, isChosen: chosen.has(at) }));
  };
  return {
    count: ideas.length,
    first: ideas.slice(0, most).map((idea) => ({ ...idea, words: markChosen(idea.key) })),
  };
}

/** The texts of all ideas under the filters that hold one of some remainders. */
export async function keysHolding(
  deps: Deps,
  slug: string,
  sheetId: number,
  { remainders, filters }: { remainders: readonly string[]; filters: IdeaFilters },
): Promise<string[]> {
  const look = await lookAt(deps, slug, sheetId, filters, [filters.state]);
  const indexes = new Set(remainders.flatMap((remainder) => holders(look, remainder)));
  return [...indexes].map((i) => look.content.ideas[i]!.key);
}

/** The shown ideas that hold a remainder in one of its forms; of a run that is none, those that hold it as it is. */
function holders(
  { sheet, content, isShown }: Awaited<ReturnType<typeof lookAt>>,
  remainder: string,
): number[] {
  const { texts, ideasOf } = remaindersOf(content, sheet);
  const text = normalise(remainder);
  const at = texts.indexOf(text);
  const all = at < 0 ? matchTexts(ideaTableOf(content), { text, match: 'phrase' }) : ideasOf(at);
  return Array.from(all).filter((i) => isShown[i] === 1);
}
