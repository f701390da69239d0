'use client';

import { useMemo } from 'react';
import { counted, type Window } from '@/core';
import type { LedgerLine } from '@/contracts/ledger';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatMoment, signed } from '@/ui/format';
import { besideColumnsWithNow } from '@/screens/frame/beside-columns';
import type { Column } from '@/ui/table/column';
import { UndoCell } from './undo-cell';

/** The columns of the ledger. */
export function useLedgerColumns(beside: Window | null): readonly Column<LedgerLine>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const columns: Column<LedgerLine>[] = [
      {
        ...{ id: 'at', name: 'when', px: 90, isText: true, isSortable: true, isDownFirst: true },
        value: ({ at }) => at,
        cell: ({ at }) => <span className="text-soft">{formatMoment(at)}</span>,
      },
      {
        ...{ id: 'who', name: 'who', px: 84, isText: true, isSortable: true },
        value: ({ who }) => who,
        cell: ({ who }) => who,
      },
      {
        ...{
          id: 'what',
          name: 'what, why',
          fullName: 'what',
          px: 180,
          share: 1,
          isText: true,
          isSortable: true,
        },
        value: ({ what, why }) => (why ? `${what}: ${why}` : what),
        cell: ({ what, why }) => (
          <span className="block whitespace-normal">
            {what}
            {why && <span className="block text-small text-soft">{why}</span>}
          </span>
        ),
      },
      {
        ...{ id: 'state', name: 'read back', px: 62, isSortable: true },
        value: ({ change }) => sayState(change),
        cell: ({ change }) => <span className={toneOf(change)}>{sayState(change)}</span>,
      },
      {
        ...{ id: 'before', name: 'cost before', px: 72, isSortable: true },
        value: ({ change }) => units(change?.before?.figures.costMicros ?? null),
        cell: ({ change }) => {
          const before = change?.before;
          return before && before.terms > 0 ? (
            <OverDays text={money(before.figures.costMicros)} days={before.days} />
          ) : null;
        },
      },
      {
        ...{ id: 'since', name: 'cost since', px: 72, isSortable: true },
        value: ({ change }) => units(change?.since?.here.costMicros ?? null),
        cell: ({ change }) =>
          change?.since && (
            <OverDays text={money(change.since.here.costMicros ?? 0)} days={change.since.days} />
          ),
      },
      {
        ...{ id: 'day', name: '± a day', px: 58, isSortable: true, explains: A_DAY },
        value: (line) => units(differenceADay(line)),
        cell: (line) => {
          const by = differenceADay(line);
          return by === null ? null : signed(by, money);
        },
      },
      {
        ...{ id: 'slips', name: 'slips', px: 60, isSortable: true, explains: SLIPS },
        value: ({ change }) => units(change?.since?.elsewhere.costMicros ?? null),
        cell: ({ change }) =>
          (change?.since?.elsewhere.costMicros ?? 0) > 0 && (
            <span className="text-timber">{money(change!.since!.elsewhere.costMicros)}</span>
          ),
      },
      {
        ...{ id: 'undo', name: 'undo', px: 58 },
        value: ({ isUndone, change }) => (isUndone || change?.undoneBy === 'sent' ? 'undone' : null),
        cell: (line) => <UndoCell line={line} />,
      },
    ];
    if (!beside) return columns;
    const after = columns.findIndex(({ id }) => id === 'slips') + 1;
    for (const column of columns) if (YIELDING.has(column.id)) column.yields = true;
    return columns.toSpliced(after, 0, ...besideColumnsWithNow(beside, of, BESIDE, money, units));
  }, [money, units, beside]);
}

/** With other days beside, these make room for them. */
const YIELDING = new Set(['before', 'since', 'day']);
const of = ({ change }: LedgerLine) => change?.beside;
const BESIDE =
  'What the terms of a stop cost where it acts: in the days that are looked at, and in those beside them.';
const A_DAY = 'What its terms cost a day since it was sent, less what they cost a day before: less is −.';
const SLIPS =
  'What the terms of a stop cost since then elsewhere: another ad group, campaign or keyword serves them now. In hand names them.';

/** In micros; null where nothing ran before, or nobody knows yet what ran since. */
function differenceADay({ change }: LedgerLine): number | null {
  if (!change?.since || !change.before || change.before.terms === 0) return null;
  const { since, before } = change;
  return Math.round(
    (since.here.costMicros ?? 0) / since.days - (before.figures.costMicros ?? 0) / before.days,
  );
}

const sayState = (change: LedgerLine['change']) =>
  change?.state === 'said' ? 'said to be done' : (change?.state ?? null);

function toneOf(change: LedgerLine['change']): string {
  if (change?.state === 'said') return 'whitespace-normal text-soft';
  return change?.state === 'there' ? 'text-moss' : 'text-rust';
}

function OverDays({ text, days }: { text: string; days: number }) {
  return (
    <>
      {text}
      <span className="block text-small text-soft">in {counted(days, 'day')}</span>
    </>
  );
}
