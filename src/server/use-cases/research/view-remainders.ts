import type * as v from 'valibot';
import { normalise, words } from '@/core';
import {
  IDEA_STATES,
  type HoldingQuerySchema,
  type HoldingSchema,
  type IdeaState,
  type RemaindersPage,
  type RemaindersQuery,
} from '@/contracts/research';
import { faultsByNgram, remainderLines, searchesOf } from '../../compute/research/remainder-lines';
import { remaindersOf } from '../../compute/research/sheet-content';
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
  const { account, open, sheet, content, states, passes, isShown } = await lookAt(
    deps,
    slug,
    sheetId,
    query,
    [query.state],
  );
  const counts = Object.fromEntries(IDEA_STATES.map((state) => [state, 0])) as Record<IdeaState, number>;
  for (const [i, state] of states.entries()) if (passes[i] === 1) counts[state] += 1;
  const remainders = remaindersOf(content, sheet);
  const faults = faultsByNgram(open.snapshot, account);
  const page = remainderLines(content, remainders, isShown, faults, query);
  return {
    ...{ version: sheet.version, counts, total: page.total, offset: query.offset, lines: page.lines },
    bare: remainders.bare.filter((i) => isShown[i] === 1).length,
  };
}

/** The ideas under the filters that hold a remainder, most searched first. @throws Refusal when there is no such sheet */
export async function viewHolding(
  deps: Deps,
  slug: string,
  sheetId: number,
  { remainder, ...filters }: v.InferOutput<typeof HoldingQuerySchema>,
): Promise<v.InferOutput<typeof HoldingSchema>> {
  const { sheet, content, isShown } = await lookAt(deps, slug, sheetId, filters, [filters.state]);
  const { texts, ideasOf, formsOf } = remaindersOf(content, sheet);
  const at = texts.indexOf(normalise(remainder));
  if (at < 0) return { ideas: [] };
  const forms = formsOf(at).map(words);
  const ideas = Array.from(ideasOf(at))
    .filter((i) => isShown[i] === 1)
    .map((i) => content.ideas[i]!);
  return {
    ideas: ideas
      .map(({ key, sources, openingBidMicros, ...volumes }) => ({
        ...{ key, sources, openingBidMicros, volume: searchesOf(volumes) },
        words: markForms(key, forms),
      }))
      .sort((a, b) => (b.volume ?? 0) - (a.volume ?? 0) || (a.key < b.key ? -1 : 1)),
  };
}

/** The words of a text, and which of them belong to one of some runs. */
function markForms(text: string, forms: readonly string[][]) {
  const all = words(text).map((word) => ({ text: word, isChosen: false }));
  for (const form of forms)
    for (let at = 0; at + form.length <= all.length; at++)
      if (form.every((word, i) => all[at + i]!.text === word))
        for (const one of all.slice(at, at + form.length)) one.isChosen = true;
  return all;
}
