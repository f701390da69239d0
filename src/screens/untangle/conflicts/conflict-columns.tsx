'use client';

import { Fragment, useMemo } from 'react';
import { normalise } from '@/core';
import type { ConflictLine } from '@/contracts/untangle';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatConversions } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';

/** What a conflict is, where it acts, and what it cost. */
export function useConflictColumns(days: number | undefined): readonly Column<ConflictLine>[] {
  const money = useMoney();
  const units = useUnits();
  const { steersBy } = useAccount().summary;
  return useMemo((): Column<ConflictLine>[] => {
    const before = days === undefined ? 'before' : `in the ${days} days before it came into force`;
    return [
      {
        ...{ id: 'negative', name: 'negative', px: 104, share: 0.8, isText: true, isSortable: true },
        value: ({ negative }) => `${negative.text} (${negative.match})`,
        cell: ({ negative }) => (
          <>
            <b>{negative.text}</b> <MatchChip match={negative.match} />
          </>
        ),
      },
      {
        ...{ id: 'where', name: 'where it acts', px: 100, share: 1.1, isText: true, isSortable: true },
        value: ({ negative }) => negative.placeName,
        cell: ({ negative }) => <span className="text-soft">{negative.placeName}</span>,
      },
      {
        ...{ id: 'keyword', name: 'live keyword', px: 140, share: 1.2, isText: true, isSortable: true },
        value: ({ keyword, protected: terms }) => keyword?.text ?? terms.first.join(', '),
        cell: (line) => <Against line={line} />,
      },
      {
        ...{ id: 'campaign', name: 'its campaign', px: 120, share: 1, isText: true, isOff: true },
        value: ({ keyword }) => (keyword ? `${keyword.campaign} · ${keyword.adGroup}` : null),
        cell: ({ keyword }) =>
          keyword && <span className="text-soft">{`${keyword.campaign} · ${keyword.adGroup}`}</span>,
      },
      {
        ...{
          id: 'severity',
          name: 'effect',
          px: 78,
          isText: true,
          isSortable: true,
        },
        value: ({ severity }) => severity,
        cell: ({ severity }) => (
          <span className={severity === 'narrowed' ? '' : 'text-rust'}>{severity}</span>
        ),
      },
      {
        ...{ id: 'terms', name: 'terms', fullName: `terms stopped, ${before}`, px: 56, isOff: true },
        value: ({ lost }) => lost?.terms ?? null,
        cell: ({ lost }) => lost?.terms ?? '?',
      },
      {
        ...{ id: 'clicks', name: 'clicks', fullName: `clicks ${before}`, px: 56, isOff: true },
        value: ({ lost }) => lost?.clicks ?? null,
        cell: ({ lost }) => lost?.clicks ?? '?',
      },
      {
        ...{ id: 'conversions', name: 'conv. before', fullName: `conversions ${before}`, px: 92 },
        ...{ isSortable: true, explains: `What its terms brought ${before}.` },
        value: ({ lost }) => lost?.conversions ?? null,
        cell: ({ lost }) => (lost ? formatConversions(lost.conversions) : '?'),
      },
      {
        ...{ id: 'value', name: 'value before', fullName: `value ${before}`, px: 92 },
        ...{ isSortable: true, isOff: steersBy === 'CPA' },
        value: ({ lost }) => units(lost?.valueMicros ?? null),
        cell: ({ lost }) => (lost ? money(lost.valueMicros) : '?'),
      },
      {
        ...{ id: 'cost', name: 'cost before', fullName: `cost ${before}`, px: 88, isSortable: true },
        value: ({ lost }) => units(lost?.costMicros ?? null),
        cell: ({ lost }) => (lost ? money(lost.costMicros) : <span className="text-soft">not known</span>),
      },
    ];
  }, [days, money, units, steersBy]);
}

/** The keyword, its words that the negative holds marked; or the protected terms. */
function Against({ line: { keyword, negative, protected: terms } }: { line: ConflictLine }) {
  if (!keyword) {
    const more = terms.count - terms.first.length;
    return (
      <span className="text-soft">
        {terms.first.map((text) => `“${text}”`).join(', ')}
        {more > 0 && ` and ${more} more`}
      </span>
    );
  }
  const held = new Set(normalise(negative.text).split(' '));
  return (
    <>
      {keyword.text.split(' ').map((word, i) => (
        <Fragment key={i}>
          {held.has(normalise(word)) ? (
            <mark className="rounded bg-straw px-0.5 text-ink">{word}</mark>
          ) : (
            word
          )}{' '}
        </Fragment>
      ))}
      <MatchChip match={keyword.match} />
    </>
  );
}
