import type { PlatformChange } from '@/contracts/platform';
import { campaignActions } from './campaign';
import { elementActions } from './element';
import { hangingActions } from './hanging';
import { keywordActions } from './keyword';
import type { AccountInWork, ActionsFor, Applied } from './kind';
import { listActions } from './list';
import { negativeActions } from './negative';
import { placementActions } from './placement';
import { productActions } from './product';

const ACTIONS: ActionsFor<PlatformChange['kind']> = {
  ...negativeActions,
  ...listActions,
  ...hangingActions,
  ...placementActions,
  ...productActions,
  ...keywordActions,
  ...campaignActions,
  ...elementActions,
};

/** Applies a change to the account, or refuses it with a reason and leaves the account as it is. */
export function applyChange(change: PlatformChange, account: AccountInWork): Promise<Applied> {
  // Each action is stored under the kind whose changes it takes.
  const action = ACTIONS[change.kind] as (of: PlatformChange, account: AccountInWork) => Promise<Applied>;
  return action(change, account);
}
