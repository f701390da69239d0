'use client';

import { useMemo } from 'react';
import { counted, noFigures, ratios } from '@/core';
import type { OwnKeywordLine } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney, useUnits } from '@/screens/frame/money';
import { SureBar } from '@/screens/sift/table/meter';
import { formatConversions, formatCount, formatDay, formatShare } from '@/ui/format';
import type { Column } from '@/ui/table/column';

/** Sure enough to act on (rules 7.3). */
const SETTLED = 0.95;

/** An exact keyword: what it brought on all days, and since it was changed last. */
export function useKeywordColumns(): readonly Column<OwnKeywordLine>[] {
  const { steersBy } = useAccount().summary;
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const byCpa = steersBy === 'CPA';
    const actual = (sums: OwnKeywordLine['ever']) => {
      const { cpaMicros, acos } = ratios({ ...noFigures(), ...sums });
      return byCpa ? cpaMicros : acos;
    };
    const write = (value: number | null) => (byCpa ? money(value) : formatShare(value));
    const valueOf = (value: number | null) => (byCpa ? units(value) : value);
    return [
      {
        ...{ id: 'keyword', name: 'exact keyword', px: 140, share: 1.2, isText: true, isSortable: true },
        value: ({ text }) => text,
        cell: ({ text, drafted }) => (
          <>
            <b>{text}</b> {drafted !== null && <span className="text-small text-pine">in the tray</span>}
          </>
        ),
      },
      {
        ...{ id: 'where', name: 'where', px: 110, share: 1, isText: true, isSortable: true, yields: true },
        value: ({ campaign, adGroup }) => `${campaign} · ${adGroup}`,
        cell: ({ campaign, adGroup }) => (
          <span className="text-soft">
            {campaign} · {adGroup}
          </span>
        ),
      },
      {
        ...{ id: 'clicks', name: 'clicks', px: 56, isSortable: true, isDownFirst: true },
        value: ({ ever }) => ever.clicks,
        cell: ({ ever }) => formatCount(ever.clicks),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 70, isSortable: true, isDownFirst: true },
        value: ({ ever }) => units(ever.costMicros),
        cell: ({ ever }) => money(ever.costMicros),
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 52, isSortable: true },
        value: ({ ever }) => ever.conversions,
        cell: ({ ever }) => formatConversions(ever.conversions),
      },
      {
        ...{ id: 'actual', name: steersBy, px: 64, isSortable: true, isDownFirst: true },
        value: ({ ever }) => valueOf(actual(ever)),
        cell: ({ ever }) => write(actual(ever)),
      },
      {
        ...{ id: 'target', name: 'target', px: 64, yields: true },
        value: ({ target }) => valueOf(target),
        cell: ({ target }) => write(target),
      },
      {
        ...{ id: 'misses', name: 'misses it', px: 76, isSortable: true, isDownFirst: true },
        value: ({ misses }) => misses,
        cell: ({ misses }) => (
          <SureBar sure={misses} settledFrom={SETTLED} says={`${formatShare(misses)} sure that it misses`} />
        ),
      },
      {
        ...{ id: 'changed', name: 'changed on', px: 72, isSortable: true, yields: true },
        explains: 'When its bid, status or match type was changed last, where the platform says so.',
        value: ({ changedOn }) => changedOn ?? '',
        cell: ({ changedOn }) => (changedOn === null ? '–' : formatDay(changedOn)),
      },
      {
        ...{ id: 'since', name: `since: ${steersBy}`, px: 78, isSortable: true },
        explains:
          'Since it was changed last: what a conversion cost, or how many clicks there were without one.',
        value: ({ since }) => (since === null ? null : valueOf(actual(since))),
        cell: ({ since }) =>
          since === null
            ? '–'
            : actual(since) === null
              ? counted(since.clicks, 'click')
              : write(actual(since)),
      },
      {
        ...{ id: 'bid', name: 'bid', px: 52, isSortable: true },
        value: ({ bidMicros }) => units(bidMicros),
        cell: ({ bidMicros }) => money(bidMicros),
      },
      {
        ...{ id: 'pays', name: 'pays', px: 52, isSortable: true },
        explains: 'The bid at which it is expected to reach its target, by all it brought.',
        value: ({ paysMicros }) => units(paysMicros),
        cell: ({ paysMicros }) => <b>{money(paysMicros)}</b>,
      },
    ];
  }, [steersBy, money, units]);
}
