'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { ShownLanes } from '@/contracts/lanes';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { InlineField } from '@/ui/form';
import { ErrorText } from '@/ui/said';

/** Any query, and the tier in which it would land: by the plan, and as the tray leaves the account. */
export function WhereForm({ shown: { key, tiers } }: { shown: ShownLanes }) {
  const { query } = useRoutes();
  const [days] = useDays();
  const [typed, setTyped] = useState('');
  const text = useDeferredValue(typed.trim());
  const asked = useQuery({
    ...query('GET lanes/where', { query: { plan: key, query: text, ...inDays(days) } }),
    enabled: text !== '',
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });
  const where = text === '' ? undefined : asked.data;
  const nameOf = (number: number) => tiers[number]?.name ?? '';
  return (
    <div className="flex flex-wrap items-baseline gap-x-2 border-b border-line px-4 py-1.5 text-table">
      <label className="flex items-baseline gap-2">
        Where would it go?
        <InlineField
          label="Where would it go?"
          placeholder="type any query"
          className="w-56"
          maxLength={500}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => event.key === 'Escape' && setTyped('')}
        />
      </label>
      <output aria-live="polite">
        {where && (
          <>
            By the plan to <b>{nameOf(where.byPlan)}</b>
            {where.entryTerm === null
              ? ', as it holds no entry term'
              : `, as it holds “${where.entryTerm}”`};{' '}
            {where.asItIs === null ? (
              <span className="text-rust">as things are every tier stops it</span>
            ) : (
              <span className={where.asItIs === where.byPlan ? 'text-soft' : 'text-rust'}>
                as things are to {nameOf(where.asItIs)}
              </span>
            )}
            .
          </>
        )}
      </output>
      <ErrorText error={text === '' ? null : asked.error} />
    </div>
  );
}
