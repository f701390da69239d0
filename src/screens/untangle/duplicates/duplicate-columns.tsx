'use client';

import { useMemo } from 'react';
import { counted } from '@/core';
import type { DuplicateLine } from '@/contracts/duplicates';
import { formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';
import { useChoiceColumns } from '../choice-columns';

const keywordsOf = ({ keywords }: DuplicateLine) => keywords;

/** What stands twice, what all of it brought, and who should stay. */
export function useDuplicateColumns(): readonly Column<DuplicateLine>[] {
  const choices = useChoiceColumns(keywordsOf, 'suggested to stay');
  return useMemo(() => {
    const { suggested, sure, clicks, conversions, cost, cpa } = choices;
    return [KEYWORD, TIMES, suggested, sure, clicks, conversions, cost, cpa, PLACES];
  }, [choices]);
}

const KEYWORD: Column<DuplicateLine> = {
  ...{ id: 'keyword', name: 'keyword', px: 140, share: 1, isText: true, isSortable: true },
  value: ({ keywords }) => keywords[0]!.text,
  cell: ({ keywords }) => (
    <>
      <b>{keywords[0]!.text}</b>{' '}
      {[...new Set(keywords.map(({ match }) => match))].map((match) => (
        <MatchChip key={match} match={match} />
      ))}
    </>
  ),
};

const TIMES: Column<DuplicateLine> = {
  ...{ id: 'times', name: 'stands', px: 54, isSortable: true },
  value: ({ count }) => count,
  cell: ({ count }) => `${formatCount(count)} ×`,
};

const PLACES: Column<DuplicateLine> = {
  ...{ id: 'places', name: 'stands in', px: 200, share: 2, isText: true, isOff: true },
  value: ({ keywords }) => keywords.map(({ campaign, adGroup }) => `${campaign} · ${adGroup}`).join(', '),
  cell: ({ keywords }) => counted(new Set(keywords.map(({ campaign }) => campaign)).size, 'campaign'),
};
