import type { NegativeText } from '../../gate';
import { matchingTexts, type TermTable } from '../../mining';
import type { Change } from '../change';
import type { RowGate, Step } from './row-gate';

/** What a draft does to the rows of a window, against the account as it stands. */
export type DraftEffect = {
  /** the account as the whole draft would leave it */
  gate: RowGate;
  /** for each change, the rows that it stops or reopens beyond what those before it did */
  steps: Step[];
  /** rows open today that the draft stops, ascending, each once however many changes stop it */
  stopped: number[];
  /** rows stopped today that the draft opens, ascending */
  reopened: number[];
};

/**
 * Applies the changes in order to a fork of the account's gate; the account's own gate stays as it is.
 * @example effectOfDraft(layGate(served, account), [stop]).stopped // [1]
 */
export function effectOfDraft(account: RowGate, changes: readonly Change[]): DraftEffect {
  const gate = account.fork();
  const steps = changes.map((change) => gate.apply(change));
  const touched = new Set(steps.flatMap((step) => [...step.stopped, ...step.reopened]));
  const ordered = [...touched].sort((a, b) => a - b);
  return {
    gate,
    steps,
    stopped: ordered.filter((r) => account.stopCount(r) === 0 && gate.stopCount(r) > 0),
    reopened: ordered.filter((r) => account.stopCount(r) > 0 && gate.stopCount(r) === 0),
  };
}

/**
 * The protected terms that negatives would stop (rules 6), as indexes into the protected texts, ascending. A negative
 * hits a protected term wherever it sits: what must stay open must stay open everywhere.
 * @example protectedHits([stop], buildTermTable(['hive', 'free delivery'])) // [1]
 */
export function protectedHits(negatives: readonly NegativeText[], protectedTexts: TermTable): number[] {
  const hits = new Set(negatives.flatMap((negative) => matchingTexts(protectedTexts, negative)));
  return [...hits].sort((a, b) => a - b);
}
