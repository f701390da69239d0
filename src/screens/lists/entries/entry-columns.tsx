'use client';

import { useMemo } from 'react';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount, formatDay } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column, Value } from '@/ui/table/column';
import { useLayout, type Sort } from '@/ui/table/use-layout';
import type { Row } from './pick-entries';

/** The entries of a list in their columns: of words, or of placements. */
export function useEntryLayout(rows: readonly Row[], isWords: boolean, sort: Sort) {
  const columns = useEntryColumns();
  const own = useMemo(
    () => (isWords ? columns : columns.filter(({ id }) => PLACEMENTS.includes(id))),
    [columns, isWords],
  );
  return useLayout(isWords ? 'entries' : 'placements', own, rows as Row[], sort);
}

const PLACEMENTS = ['text', 'since'];

/** Since when an entry stands there is said in hand, too; it yields where the screen is narrow. */
function useEntryColumns(): readonly Column<Row>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    type Stopped = NonNullable<Row['health']>['stopped'];
    /** Of what the entry stopped; a dash where it stands there since before the first day of data. */
    const estimate = (
      of: (stopped: Stopped) => number | null,
      say: (value: number | null) => string = formatCount,
      toValue: (value: number | null) => Value = (value) => value,
    ): Pick<Column<Row>, 'value' | 'cell'> => ({
      value: ({ health }) => (health && health.stopped.known > 0 ? toValue(of(health.stopped)) : null),
      cell: ({ health }) =>
        health === undefined ? '' : health.stopped.known === 0 ? '–' : say(of(health.stopped)),
    });
    const columns: Column<Row>[] = [
      {
        ...{ id: 'text', name: 'text', px: 150, share: 3, isText: true, isSortable: true },
        value: ({ text }) => text,
        cell: (row) => <Text row={row} />,
      },
      {
        ...{ id: 'match', name: 'match', px: 50, isText: true, isSortable: true },
        value: ({ match }) => match,
        cell: ({ match }, _, { isLight }) => (isLight ? match : <MatchChip match={match!} />),
      },
      {
        ...{ id: 'since', name: 'since', px: 76, share: 1, yields: true, isText: true, isSortable: true },
        value: ({ since }) => since?.slice(0, 10) ?? null,
        cell: ({ since, by }) => (
          <span className="text-soft">
            {since ? formatDay(since.slice(0, 10), true) : ''} {by ?? ''}
          </span>
        ),
      },
      {
        ...{ id: 'clicks', name: 'clicks', px: 46, isSortable: true },
        explains: 'Clicks that it saved, estimated from the days before.',
        ...estimate(({ clicks }) => clicks),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 60, isSortable: true },
        explains: 'Cost that it saved, estimated from the days before.',
        ...estimate(({ costMicros }) => costMicros, money, units),
      },
      {
        ...{ id: 'converting', name: 'converting', px: 62, isSortable: true },
        explains: 'Terms that it stopped and that had converted before.',
        ...estimate(({ returningTerms }) => returningTerms),
        cell: ({ health }) => <Converting health={health} />,
      },
      {
        ...{ id: 'hurts', name: 'hurts', px: 44, isSortable: true },
        explains: 'Live keywords that it shuts out or narrows.',
        value: ({ hurts }) => hurts,
        cell: ({ hurts }) => <span className={toneOf(hurts)}>{hurts}</span>,
      },
      {
        ...{ id: 'covers', name: 'needless by', px: 84, share: 1, isText: true, isSortable: true },
        value: ({ health }) =>
          health?.coveredBy ?? (health && health.covers > 0 ? `covers ${health.covers}` : null),
        cell: ({ health }) => (
          <span className="text-timber" title={health?.coveredBy ?? undefined}>
            {health?.coveredBy ??
              (health && health.covers > 0 ? <span className="text-soft">covers {health.covers}</span> : '')}
          </span>
        ),
      },
      {
        ...{ id: 'missing', name: 'forms', px: 44, isSortable: true },
        explains: 'Forms of it that still pass.',
        value: ({ health }) => health?.missing ?? null,
        cell: ({ health }) => (
          <span className={(health?.missing ?? 0) > 0 ? 'text-timber' : 'text-soft'}>{health?.missing}</span>
        ),
      },
    ];
    return columns;
  }, [money, units]);
}

function Text({ row: { text, drafted } }: { row: Row }) {
  return (
    <span className={drafted === 'removed' ? 'line-through' : ''} title={text}>
      {text}{' '}
      {drafted && (
        <span className="text-small text-pine">
          {drafted === 'added' ? 'in the tray' : drafted === 'removed' ? 'goes with the tray' : drafted}
        </span>
      )}
    </span>
  );
}

function Converting({ health }: { health: Row['health'] }) {
  if (!health) return '';
  if (health.stopped.known === 0) return '–';
  return (
    <span className={toneOf(health.stopped.returningTerms)}>
      {formatCount(health.stopped.returningTerms)}
    </span>
  );
}

const toneOf = (count: number) => (count > 0 ? 'font-semibold text-rust' : 'text-soft');
