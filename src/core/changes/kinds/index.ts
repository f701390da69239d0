import type { Change, ChangeKind } from '../change';
import { campaignRules } from './campaign';
import { elementRules } from './element';
import { hangingRules } from './hanging';
import { keywordRules } from './keyword';
import type { KindRules, RulesFor } from './kind';
import { listRules } from './list';
import { negativeRules } from './negative';
import { placementRules } from './placement';
import { productRules } from './product';

/** The rules of every kind of change. A kind that is missing here does not compile. */
const RULES: RulesFor<ChangeKind> = {
  ...negativeRules,
  ...listRules,
  ...hangingRules,
  ...placementRules,
  ...productRules,
  ...keywordRules,
  ...campaignRules,
  ...elementRules,
};

/** Every kind of change, in the order in which they are joined here. */
export const CHANGE_KINDS = Object.keys(RULES) as readonly ChangeKind[];

/** The rules of a change's own kind. */
export function rulesOf<C extends Change>(change: C): KindRules<C> {
  // Each rule is stored under the kind whose changes it takes.
  return RULES[change.kind] as unknown as KindRules<C>;
}
