import type { RuleAction } from '@/core';
import type { Finding } from '@/contracts/findings';

/** What a yes says of a term that a rule found; null where the rule stops it, or only tells. */
export function verdictOfAction(then: RuleAction): Finding['verdict'] {
  if (then.do === 'keep') return { is: 'kept' };
  return then.do === 'set aside' ? { is: 'aside', moreClicks: then.moreClicks } : null;
}
