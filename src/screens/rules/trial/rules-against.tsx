'use client';

import { counted, isStop, listed, type RuleAction } from '@/core';
import type { TrialView } from '@/contracts/rules';

const WANTS = { stop: 'would stop', keep: 'would keep open', 'set aside': 'would set aside' } as const;

/** Rules that are switched on and want the opposite of what this one would do, with the terms that both find. */
export function RulesAgainst({ against, then }: { against: TrialView['against']; then: RuleAction }) {
  if (against.length === 0) return null;
  return (
    <ul className="border-b border-line px-4 py-2 text-table" aria-label="Rules that want the opposite">
      {against.map(({ rule, does, terms, first }) => (
        <li key={rule}>
          <b className="text-rust">
            The rule “{rule}” {WANTS[does]}
          </b>{' '}
          {counted(terms, 'term')} that this one{' '}
          {isStop(then) ? 'stops' : then.do === 'keep' ? 'keeps' : 'sets aside'}: {listed(first, terms)}. Each
          of them waits for somebody.
        </li>
      ))}
    </ul>
  );
}
