'use client';

import { useMemo } from 'react';
import { counted, type Window } from '@/core';
import type { TwoWindows } from '@/contracts/common';
import { besideColumnsWithNow } from '@/screens/frame/beside-columns';
import type { ListHealth, ListLine, Stopped } from '@/contracts/lists';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions, formatCount, formatDay } from '@/ui/format';
import type { Column, Value } from '@/ui/table/column';

/** A list, and what is known of it; the health comes later. */
export type ListRow = {
  list: ListLine;
  health: ListHealth | undefined;
  /** what its terms cost where it hangs, in these days and in others; undefined where none are asked for */
  beside: TwoWindows | undefined;
  /** that the account has */
  campaigns: number;
};

/** The columns of the overview. Room and last change stand in hand, too, so they yield where the screen is narrow. */
export function useListColumns(beside: Window | null): readonly Column<ListRow>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    /** What the list stopped: nothing is said where it hung before the first day of data. */
    const estimate = (
      id: string,
      px: number,
      explains: string,
      of: (stopped: Stopped) => number,
      say: (value: number) => string = formatCount,
      toValue: (value: number) => Value = (value) => value,
    ): Column<ListRow> => ({
      ...{ id, name: id, px, explains, isSortable: true },
      value: ({ health }) => (health && health.stopped.known > 0 ? toValue(of(health.stopped)) : null),
      cell: ({ health }) =>
        health === undefined ? '' : health.stopped.known > 0 ? say(of(health.stopped)) : '–',
    });
    const columns: Column<ListRow>[] = [
      {
        ...{ id: 'name', name: 'list', px: 150, share: 1, isText: true, isSortable: true },
        value: ({ list }) => list.name,
        cell: ({ list }) => <Name list={list} />,
      },
      {
        ...{ id: 'entries', name: 'entries', px: 50, isSortable: true },
        value: ({ list }) => list.entries,
        cell: ({ list }) => formatCount(list.entries),
      },
      {
        ...{ id: 'room', name: 'room left', px: 46, yields: true, isSortable: true },
        explains: 'Entries that the list can still take.',
        value: ({ list }) => list.room,
        cell: ({ list: { room } }) => (
          <span className={room < 100 ? 'font-semibold text-rust' : 'text-soft'}>{formatCount(room)}</span>
        ),
      },
      {
        ...{ id: 'hangs', name: 'hangs on', px: 84, isSortable: true },
        value: ({ list: { hungOn }, campaigns }) => (hungOn === 'account' ? campaigns : hungOn.length),
        cell: ({ list }) => <HangsOn list={list} />,
      },
      estimate('terms', 44, 'Terms that it stopped, estimated.', ({ terms }) => terms),
      estimate('clicks', 46, 'Clicks that it saved, estimated.', ({ clicks }) => clicks ?? 0),
      estimate(
        ...(['cost', 60, 'Cost that it saved, estimated.', (s: Stopped) => s.costMicros ?? 0] as const),
        ...([money, units] as const),
      ),
      {
        ...estimate('converting', 62, WRONG, ({ returningTerms }) => returningTerms),
        cell: ({ health }) => <Converting stopped={health?.stopped} />,
      },
      {
        ...{ id: 'needless', name: 'needless', px: 56, isSortable: true },
        explains: 'Entries that another negative makes needless.',
        value: ({ health }) => health?.redundant ?? null,
        cell: ({ health }) => (
          <span className={(health?.redundant ?? 0) > 0 ? 'text-timber' : 'text-soft'}>
            {health ? formatCount(health.redundant) : ''}
          </span>
        ),
      },
      {
        ...{ id: 'last', name: 'last change', px: 100, yields: true, isText: true, isSortable: true },
        value: ({ health }) => health?.last?.at.slice(0, 10) ?? null,
        cell: ({ health }) => (
          <span className="text-soft">{health && <LastChange last={health.last} />}</span>
        ),
      },
    ];
    if (!beside) return columns;
    const after = columns.findIndex(({ id }) => id === 'cost') + 1;
    return columns.toSpliced(after, 0, ...besideColumnsWithNow(beside, of, BESIDE, money, units));
  }, [money, units, beside]);
}

const of = (row: ListRow) => row.beside;
const BESIDE =
  'What the terms of the list cost where it hangs: in the days that are looked at, and in those beside them.';
const WRONG = 'Terms among those stopped that had converted before: stopped by mistake, perhaps.';

function Name({ list }: { list: ListLine }) {
  return (
    <span title={list.name}>
      <b>{list.name}</b> <span className="text-soft">{list.holds === 'placements' && 'placements'}</span>{' '}
      {list.waits && <span className="text-rust">changed elsewhere</span>}
      {list.wanted.length > 0 && <span className="text-pine">+{list.wanted.length} by rule</span>}
    </span>
  );
}

function HangsOn({ list: { hungOn, isNew } }: { list: ListLine }) {
  if (isNew) return 'in the tray';
  if (hungOn === 'account') return 'the account';
  if (hungOn.length === 0) return <span className="font-semibold text-rust">nowhere</span>;
  return counted(hungOn.length, 'campaign');
}

function Converting({ stopped }: { stopped: Stopped | undefined }) {
  if (!stopped) return '';
  if (stopped.known === 0) return '–';
  const wrong = stopped.returningTerms;
  return (
    <span
      className={wrong > 0 ? 'font-semibold text-rust' : 'text-soft'}
      title={
        wrong > 0
          ? `${counted(wrong, 'term')} with ${formatConversions(stopped.conversions)} conversions`
          : undefined
      }
    >
      {formatCount(wrong)}
    </span>
  );
}

function LastChange({ last }: { last: ListHealth['last'] }) {
  if (!last) return '–';
  const day = formatDay(last.at.slice(0, 10), true);
  const by = last.by ?? (last.isKnown ? 'somebody else, on the platform' : 'when its newest entry came');
  return (
    <span title={`${day}, ${by}`}>
      {last.isKnown ? `${formatDay(last.at.slice(0, 10))} ${last.by ?? 'elsewhere'}` : day}
    </span>
  );
}
