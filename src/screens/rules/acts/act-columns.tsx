'use client';

import { useMemo } from 'react';
import type { RuleAct } from '@/contracts/findings';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatDay } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { termAndRule } from '../term-columns';

/** What a rule did: to what, what it promised to save since, and what came. */
export function useActColumns(): readonly Column<RuleAct>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    () => [
      ...termAndRule<RuleAct>('what it is about', true),
      {
        ...{ id: 'day', name: 'done', fullName: 'day on which it was done', px: 72, isSortable: true },
        isDownFirst: true,
        value: ({ day }) => day,
        cell: ({ day }) => formatDay(day),
      },
      {
        ...{ id: 'state', name: 'is', px: 84, isText: true, isSortable: true },
        value: ({ state }) => state,
        cell: ({ state }) => <span className={STATE_TONES[state]}>{state}</span>,
      },
      {
        ...{ id: 'promised', name: 'promised', fullName: 'promised since', px: 84, isSortable: true },
        isDownFirst: true,
        value: ({ promisedMicros }) => units(promisedMicros),
        cell: ({ promisedMicros }) => money(promisedMicros),
      },
      {
        ...{ id: 'came', name: 'saved', fullName: 'saved since', px: 84, isSortable: true },
        isDownFirst: true,
        value: ({ cameMicros }) => units(cameMicros),
        cell: ({ cameMicros }) => money(cameMicros),
      },
    ],
    [money, units],
  );
}

const STATE_TONES: Record<RuleAct['state'], string> = {
  'on its way': 'text-soft',
  'in force': 'text-pine',
  refused: 'text-rust',
  'taken back': 'text-timber',
};
