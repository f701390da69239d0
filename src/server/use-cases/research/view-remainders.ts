import { compileGate, normalise } from '@/core';
import { IDEA_STATES, type IdeaState, type RemaindersPage, type RemaindersQuery } from '@/contracts/research';
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
  const account = await requireAccount(deps, slug);
  const sheet = await findSheet(deps.db, account.id, sheetId);
  if (!sheet) throw new Refusal('There is no such research sheet.', 404);
  const open = await openWorkbench(deps, account);
  const content = await contentOf(deps.db, account.id, sheet);
  const verdicts = await loadVerdicts(deps.db, account.id, sheetId);
  const passes = passing(content, query);
  const states = statesOf(content, open, verdicts);
  const counts = Object.fromEntries(IDEA_STATES.map((state) => [state, 0])) as Record<IdeaState, number>;
  for (const [i, state] of states.entries()) if (passes[i] === 1) counts[state] += 1;
  const isShown = Uint8Array.from(states, (state, i) => (state === query.state ? passes[i]! : 0));
  const remainders = remaindersOf(content, sheet);
  const faults = faultsByNgram(open.snapshot, account);
  const page = remainderLines(content, remainders, isShown, faults, query);
  return {
    ...{ version: sheet.version, counts, total: page.total, offset: query.offset, lines: page.lines },
    bare: remainders.bare.filter((i) => isShown[i] === 1).length,
  };
}

/** 1 for each idea that the filters let through, whatever was decided on it. */
function passing({ ideas }: SheetContent, { searches, typed, holds, source }: RemaindersQuery): Uint8Array {
  const words = typed.split(',').map(normalise);
  const typedIn = compileGate(words.filter((text) => text !== '').map((text) => ({ text, match: 'phrase' })));
  const isTyped = words.some((text) => text !== '');
  return Uint8Array.from(ideas, (idea) => {
    if (searches > 0 && (searchesOf(idea) ?? 0) < searches) return 0;
    if (source !== undefined && !idea.sources.includes(source)) return 0;
    if (!isTyped) return 1;
    return typedIn.isStopped(idea.key) === (holds === 'any') ? 1 : 0;
  });
}
