import { compileGate, normalise } from '@/core';
import type { IdeaFilters, IdeaState } from '@/contracts/research';
import { statesOf } from '../../compute/research/idea-states';
import { searchesOf } from '../../compute/research/remainder-lines';
import { contentOf, type SheetContent } from '../../compute/research/sheet-content';
import { loadVerdicts } from '../../repositories/research/ideas';
import { findSheet } from '../../repositories/research/sheets';
import { candidateSources } from '../../repositories/research/sources';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';

type IdeaFiltersButState = Omit<IdeaFilters, 'state'>;

/**
 * A sheet over the account, and its ideas under the filters. What came from briefs and packs alone are ready negatives, not ideas.
 * @throws Refusal when there is no such sheet
 */
export async function lookAt(
  deps: Deps,
  slug: string,
  sheetId: number,
  filters: IdeaFiltersButState,
  shown: readonly IdeaState[],
) {
  const account = await requireAccount(deps, slug);
  const sheet = await findSheet(deps.db, account.id, sheetId);
  if (!sheet) throw new Refusal('There is no such research sheet.', 404);
  const open = await openWorkbench(deps, account);
  const content = await contentOf(deps.db, account.id, sheet);
  const states = statesOf(content, open, await loadVerdicts(deps.db, account.id, sheetId));
  const passes = passing(content, filters);
  const ready = await candidateSources(deps.db, account.id, sheetId);
  const isCandidate = content.ideas.map(({ sources }) => sources.every((source) => ready.has(source)));
  const isShown = Uint8Array.from(states, (state, i) =>
    shown.includes(state) && !isCandidate[i] ? passes[i]! : 0,
  );
  return { account, open, sheet, content, states, passes, isShown, isCandidate };
}

/** 1 for each idea that the filters let through, whatever was decided on it. */
function passing(
  { ideas }: SheetContent,
  { searches, typed, holds, source }: IdeaFiltersButState,
): Uint8Array {
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
