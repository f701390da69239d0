'use client';

import type { ReactNode } from 'react';
import { isPromising, type Bounds, type Rule } from '@/core';
import { useAccount } from '@/screens/frame/account-context';
import { Select } from '@/ui/select';
import { Figure } from './word-fields';

type How = Rule['how'];
/** Of a rule that begins to act by itself: little, until it has shown what it keeps. */
const FIRST: Bounds = { changesADay: 20, costADayMicros: 50_000_000, leastKept: 0.5 };

/** Whether somebody says yes, or the rule acts by itself, and within what. */
export function HowWords({ rule, onChange }: { rule: Rule; onChange: (how: How) => void }) {
  const { how } = rule;
  return (
    <>
      <Words>
        <Select
          look="word"
          label="After a yes or by itself"
          value={how.is}
          options={[
            { key: 'by approval', says: 'after a yes' },
            { key: 'by itself', says: 'by itself' },
          ]}
          onChange={(is) => onChange(is === 'by approval' ? { is } : { is, bounds: FIRST })}
        />
        <span className="-ml-1">{how.is === 'by itself' ? ',' : '.'}</span>
      </Words>
      {how.is === 'by itself' && (
        <BoundWords rule={rule} bounds={how.bounds} onChange={(bounds) => onChange({ ...how, bounds })} />
      )}
    </>
  );
}

/** Whose cost is bounded: that of a list is the cost of the terms that it would stop. */
const COSTLY: Record<NonNullable<Rule['about']> | 'terms', string> = {
  ...{ terms: 'terms', words: 'terms', lists: 'terms', keywords: 'keywords', campaigns: 'campaigns' },
};

/** Words that stand together, as long as a line has room for them. */
const Words = ({ children }: { children: ReactNode }) => (
  <span className="inline-flex flex-wrap items-baseline gap-x-1.5">{children}</span>
);

type BoundProps = { rule: Rule; bounds: Bounds; onChange: (bounds: Bounds) => void };

function BoundWords({ rule, bounds, onChange }: BoundProps) {
  const { currency } = useAccount().summary;
  return (
    <>
      <Words>
        at most
        <Figure
          label="Changes a day at most"
          value={bounds.changesADay}
          least={1}
          most={10_000}
          onChange={(changesADay) => onChange({ ...bounds, changesADay })}
        />
        changes a day,
      </Words>
      <Words>
        of {COSTLY[rule.about ?? 'terms']} that cost
        <Figure
          label={`Cost of what it is about a day at most, in ${currency}`}
          value={bounds.costADayMicros / 1e6}
          most={1e9}
          places={2}
          onChange={(cost) => onChange({ ...bounds, costADayMicros: Math.round(cost * 1e6) })}
        />
        {currency} together.
      </Words>
      {isPromising(rule.then) && (
        <>
          <Words>It stops itself when less than</Words>
          <Words>
            <Figure
              label="Least share of its promise that must come, in per cent"
              value={Math.round(1_000 * bounds.leastKept) / 10}
              most={100}
              places={1}
              onChange={(percent) => onChange({ ...bounds, leastKept: percent / 100 })}
            />
            % of what it promised comes.
          </Words>
        </>
      )}
    </>
  );
}
