import type { NegativeText, Place } from '../gate';
import { matchingTexts, type TermTable } from '../mining';
import type { Change } from './change';
import type { RowGate } from './row-gate';

/** What a draft does to the rows of a window, against the account as it stands. */
export type DraftEffect = {
  /** the account as the whole draft would leave it */
  gate: RowGate;
  /** for each change, the rows that it stops or reopens beyond what those before it did */
  steps: { stopped: number[]; reopened: number[] }[];
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
 * The negatives that a change brings into force somewhere: itself, or the entries of the list it hangs.
 * @example negativesBroughtBy(stop, layGate(served, account)) // [{ text: 'free', match: 'broad' }]
 */
export function negativesBroughtBy(change: Change, gate: RowGate): NegativeText[] {
  switch (change.kind) {
    case 'add negative':
      return [{ text: change.text, match: change.match }];
    case 'hang list':
      return gate.entriesAt({ kind: 'list', id: change.listId });
    case 'remove negative':
    case 'take down list':
    case 'make list':
    case 'remove list':
    case 'rename list':
    case 'add placement':
    case 'remove placement':
    case 'exclude product':
    case 'readmit product':
    case 'set bid':
    case 'pause keyword':
    case 'run keyword':
      return [];
  }
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

/**
 * Where a list that hangs on a campaign (or, null, on the whole account) acts.
 * @example hangingPlace(null) // { kind: 'account', id: null }
 */
export function hangingPlace(campaignId: string | null): Place {
  return campaignId === null ? { kind: 'account', id: null } : { kind: 'campaign', id: campaignId };
}

/**
 * Whether a list hangs on a campaign by itself, or (null) on the whole account.
 * @example isHungOn(['c1'], 'c1') // true
 */
export function isHungOn(hungOn: readonly string[] | 'account' = [], campaignId: string | null): boolean {
  if (hungOn === 'account' || campaignId === null) return hungOn === 'account' && campaignId === null;
  return hungOn.includes(campaignId);
}

/**
 * Rows that a change acts on where it stands, stopped by others or not; ascending, each once.
 * @example rowsActedOn(stop, layGate(served, account)) // [0, 1]
 */
export function rowsActedOn(change: Change, gate: RowGate): number[] {
  switch (change.kind) {
    case 'add negative':
    case 'remove negative':
      return gate.reached(change, change.place);
    case 'hang list':
    case 'take down list': {
      const place = hangingPlace(change.campaignId);
      const entries = gate.entriesAt({ kind: 'list', id: change.listId });
      return [...new Set(entries.flatMap((entry) => gate.reached(entry, place)))].sort((a, b) => a - b);
    }
    case 'exclude product':
    case 'readmit product':
      return gate.reachedByCode(change.code, change.place);
    case 'make list':
    case 'remove list':
    case 'rename list':
    case 'add placement':
    case 'remove placement':
    case 'set bid':
    case 'pause keyword':
    case 'run keyword':
      return [];
  }
}
