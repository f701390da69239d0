import { ascending } from 'd3-array';
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
 * The same draft with more changes after it: only they are laid, on the words they hold.
 * @param account the gate over which the draft is laid
 * @example extendDraft(layGate(served, account), effectOfDraft(layGate(served, account), []), [stop]).stopped // [1]
 */
export function extendDraft(account: RowGate, draft: DraftEffect, more: readonly Change[]): DraftEffect {
  const gate = draft.gate.fork();
  const steps = more.map((change) => gate.apply(change));
  const touched = rowsIn(steps);
  const others = (rows: readonly number[]) => rows.filter((r) => !touched.has(r));
  const { stopped, reopened } = crossed(account, gate, touched);
  return {
    ...{ gate, steps: [...draft.steps, ...steps] },
    stopped: [...others(draft.stopped), ...stopped].sort(ascending),
    reopened: [...others(draft.reopened), ...reopened].sort(ascending),
  };
}

/**
 * Applies the changes in order to a fork of the account's gate; the account's own gate stays as it is.
 * @example effectOfDraft(layGate(served, account), [stop]).stopped // [1]
 */
export function effectOfDraft(account: RowGate, changes: readonly Change[]): DraftEffect {
  const gate = account.fork();
  const steps = changes.map((change) => gate.apply(change));
  return { gate, steps, ...crossed(account, gate, rowsIn(steps)) };
}

const rowsIn = (steps: readonly Step[]) =>
  new Set(steps.flatMap(({ stopped, reopened }) => [...stopped, ...reopened]));

/** Of some rows those that are open in the account and stopped now, and the other way round; ascending. */
function crossed(account: RowGate, now: RowGate, rows: ReadonlySet<number>) {
  const ordered = [...rows].sort(ascending);
  return {
    stopped: ordered.filter((r) => account.stopCount(r) === 0 && now.stopCount(r) > 0),
    reopened: ordered.filter((r) => account.stopCount(r) > 0 && now.stopCount(r) === 0),
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
