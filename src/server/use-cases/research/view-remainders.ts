import type * as v from 'valibot';
import { compileGate, normalise, words } from '@/core';
import {
  IDEA_STATES,
  type HoldingQuerySchema,
  type HoldingSchema,
  type IdeaFilters,
  type IdeaState,
  type RemaindersPage,
  type RemaindersQuery,
} from '@/contracts/research';
import { statesOf } from '../../compute/research/idea-states';
import { faultsByNgram, remainderLines, searchesOf } from '../../compute/research/remainder-lines';
import { contentOf, remaindersOf, type SheetContent } from '../../compute/research/sheet-content';
import { loadVerdicts } from '../../repositories/research/ideas';
import { findSheet } from '../../repositories/research/sheets';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';

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
  const { account, open, sheet, content, states, passes, isShown } = await look(deps, slug, sheetId, query);
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
  const { sheet, content, isShown } = await look(deps, slug, sheetId, filters);
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

/** A sheet over the account, and its ideas under the filters. @throws Refusal when there is no such sheet */
async function look(deps: Deps, slug: string, sheetId: number, filters: IdeaFilters) {
  const account = await requireAccount(deps, slug);
  const sheet = await findSheet(deps.db, account.id, sheetId);
  if (!sheet) throw new Refusal('There is no such research sheet.', 404);
  const open = await openWorkbench(deps, account);
  const content = await contentOf(deps.db, account.id, sheet);
  const states = statesOf(content, open, await loadVerdicts(deps.db, account.id, sheetId));
  const passes = passing(content, filters);
  const isShown = Uint8Array.from(states, (state, i) => (state === filters.state ? passes[i]! : 0));
  return { account, open, sheet, content, states, passes, isShown };
}

/** 1 for each idea that the filters let through, whatever was decided on it. */
function passing({ ideas }: SheetContent, { searches, typed, holds, source }: IdeaFilters): Uint8Array {
  const typedTexts = typed.split(',').map(normalise);
  const typedIn = compileGate(
    typedTexts.filter((text) => text !== '').map((text) => ({ text, match: 'phrase' })),
  );
  const isTyped = typedTexts.some((text) => text !== '');
  return Uint8Array.from(ideas, (idea) => {
    if (searches > 0 && (searchesOf(idea) ?? 0) < searches) return 0;
    if (source !== undefined && !idea.sources.includes(source)) return 0;
    if (!isTyped) return 1;
    return typedIn.isStopped(idea.key) === (holds === 'any') ? 1 : 0;
  });
}
