'use client';

import { counted, listed, type Rule } from '@/core';
import type { TrialView } from '@/contracts/rules';
import { thingOf } from '../say-rule';
import { trialWords } from './trial-words';

type Against = TrialView['against'];

const WANTS: Record<Against[number]['does'], string> = {
  ...{ stop: 'would stop', keep: 'would keep open', 'set aside': 'would set aside' },
  promote: 'would promote',
  ...{ pause: 'would pause', lower: 'would lower the bid of', raise: 'would raise the bid of' },
};

/** Rules that are switched on and want the opposite of what this one would do, with what both find. */
export function RulesAgainst({ against, rule }: { against: Against; rule: Rule }) {
  if (against.length === 0) return null;
  return (
    <ul className="border-b border-line px-4 py-2 text-table" aria-label="Rules that want the opposite">
      {against.map(({ rule: other, does, terms, first }) => (
        <li key={other}>
          <b className="text-rust">
            The rule “{other}” {WANTS[does]}
          </b>{' '}
          {counted(terms, thingOf(rule))} that this one would have {trialWords(rule.then).did}:{' '}
          {listed(first, terms)}. Each of them waits for somebody.
        </li>
      ))}
    </ul>
  );
}
