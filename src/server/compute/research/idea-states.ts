import { compileGate, type AccountShape, type NegativeText } from '@/core';
import type { IdeaState } from '@/contracts/research';
import type { IdeaVerdict } from '../../repositories/research/ideas';
import { derivedByKey } from '../derived';
import type { Workbench } from '../workbench';
import type { SheetContent } from './sheet-content';

/**
 * What each idea of a sheet is (rules 16.6): stopped already where a negative that is in force somewhere matches it; stopped where the account would
 * have one with the tray; else what a person decided.
 */
export function statesOf(
  content: SheetContent,
  { standing, draft }: Workbench,
  verdicts: ReadonlyMap<string, IdeaVerdict>,
): IdeaState[] {
  const now = stoppedBy(content, inForceSomewhere(standing.shape()));
  const then = stoppedBy(content, withTheTray(standing.shape(), draft.gate.shape()));
  return content.ideas.map(({ key }, i) => {
    if (now[i] === 1) return 'stopped already';
    return then[i] === 1 ? 'stopped' : (verdicts.get(key) ?? 'open');
  });
}

/** The negatives of an account without those of lists that hang nowhere. */
function inForceSomewhere({ lists, negatives }: AccountShape): readonly NegativeText[] {
  const hung = new Set(
    lists.filter(({ hungOn }) => hungOn === 'account' || hungOn.length > 0).map(({ id }) => id),
  );
  return negatives.filter(({ place }) => place.kind !== 'list' || hung.has(place.id!));
}

/** What is in force with the tray, and what the tray brings into lists that hang nowhere yet. */
function withTheTray(standing: AccountShape, then: AccountShape): readonly NegativeText[] {
  const known = new Set(standing.negatives.map(({ id }) => id));
  return [...inForceSomewhere(then), ...then.negatives.filter(({ id }) => !known.has(id))];
}

/** 1 for each idea that one of some negatives matches; kept, for most decisions leave the negatives as they are. */
const stoppedBy: (content: SheetContent, negatives: readonly NegativeText[]) => Uint8Array = derivedByKey(
  (negatives: readonly NegativeText[]) => JSON.stringify(negatives.map(({ text, match }) => [text, match])),
  ({ ideas }: SheetContent, negatives: readonly NegativeText[]) => {
    const gate = compileGate(negatives);
    return Uint8Array.from(ideas, ({ key }) => (gate.isStopped(key) ? 1 : 0));
  },
  4,
);
