import { CHANGE_KINDS, type Change, type ChangeKind } from '@/core';
import { campaignWork } from './campaign';
import { elementWork } from './element';
import { hangingWork } from './hanging';
import type { KindWork, WorkFor } from './kind';
import { keywordWork } from './keyword';
import { listWork } from './list';
import { negativeWork } from './negative';
import { placementWork } from './placement';
import { productWork } from './product';

/** What the server does for every kind of change. A kind that is missing here does not compile. */
const WORK: WorkFor<ChangeKind> = {
  ...negativeWork,
  ...listWork,
  ...hangingWork,
  ...placementWork,
  ...productWork,
  ...keywordWork,
  ...campaignWork,
  ...elementWork,
};

/** What the server does for the kind of a change. */
export function workOf<C extends Change>(change: C): KindWork<C> {
  // Each entry is stored under the kind whose changes it takes.
  return WORK[change.kind] as unknown as KindWork<C>;
}

/** The same for every kind, one after another. */
export const workOfAll: readonly Pick<KindWork<Change>, 'findOutside'>[] = CHANGE_KINDS.map(
  (kind) => WORK[kind],
);

/** What a person is asked to do in a sheet, for each kind. */
export const SHEET_TASKS: readonly string[] = CHANGE_KINDS.map((kind) => WORK[kind].sheet.task);
