'use client';

import { useMemo } from 'react';
import { counted, type Window } from '@/core';
import type { LedgerLine } from '@/contracts/ledger';
import type { SavedSoFar } from '@/contracts/saved';
import { useMoney, useUnits } from '@/screens/frame/money';
import { balance, formatMoment } from '@/ui/format';
import { besideColumnsWithNow } from '@/screens/frame/beside-columns';
import type { Column } from '@/ui/table/column';
import { UndoCell } from './undo-cell';

type Saved = SavedSoFar['changes'][number];

/**
 * The columns of the ledger.
 * @param saved what changes saved, by their ids
 */
export function useLedgerColumns(
  beside: Window | null,
  saved: ReadonlyMap<number, Saved>,
): readonly Column<LedgerLine>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const savedOf = ({ change }: LedgerLine) => change && saved.get(change.id);
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
        ...{ id: 'predicted', name: 'predicted', px: 72, isSortable: true, explains: PREDICTED },
        value: (line) => units(savedOf(line)?.predictedMicros ?? null),
        cell: (line) => {
          const saved = savedOf(line);
          return (
            saved?.predictedMicros != null && (
              <OverDays text={money(saved.predictedMicros)} days={saved.days} />
            )
          );
        },
      },
      {
        ...{ id: 'saved', name: 'saved', px: 72, isSortable: true, explains: SAVED },
        value: (line) => units(savedOf(line)?.realMicros ?? null),
        cell: (line) => {
          const saved = savedOf(line);
          return saved && <OverDays text={balance(saved.realMicros, money)} days={saved.days} />;
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
  }, [money, units, beside, saved]);
}

/** With other days beside, these make room for them. */
const YIELDING = new Set(['predicted', 'saved']);
const of = ({ change }: LedgerLine) => change?.beside;
const BESIDE =
  'What the terms of a stop cost where it acts: in the days that are looked at, and in those beside them.';
const PREDICTED =
  'What a stop was predicted to save when it was sent, less what would come back, for the days since.';
const SAVED =
  'What a stop saved since: what its terms would have cost, less what they cost now, in all places together. In hand says why it is not what was predicted.';
const SLIPS =
  'What the terms of a stop cost since then elsewhere: another ad group, campaign or keyword serves them now. In hand names them.';

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
