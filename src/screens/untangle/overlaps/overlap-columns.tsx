'use client';

import { useMemo } from 'react';
import { sumFigures } from '@/core';
import type { OverlapLine } from '@/contracts/overlaps';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { useChoiceColumns } from '../choice-columns';

const serversOf = ({ servers }: OverlapLine) => servers;
const elsewhereOf = ({ servers }: OverlapLine) => sumFigures(servers.slice(1)).costMicros ?? 0;

/** A term that several ad groups serve, who should have it, and what it cost in the other places. */
export function useOverlapColumns(): readonly Column<OverlapLine>[] {
  const money = useMoney();
  const units = useUnits();
  const choices = useChoiceColumns(serversOf, 'suggested to keep it');
  return useMemo(() => {
    const { suggested, sure, clicks, conversions, cost, cpa } = choices;
    const elsewhere: Column<OverlapLine> = {
      ...{ id: 'elsewhere', name: 'cost elsewhere', px: 116, isSortable: true },
      explains: 'What it cost in all places but the one that should have it.',
      value: (line) => units(elsewhereOf(line)),
      cell: (line) => money(elsewhereOf(line)),
    };
    return [TERM, SERVERS, suggested, sure, clicks, conversions, { ...cost, isOff: true }, elsewhere, cpa];
  }, [choices, money, units]);
}

const TERM: Column<OverlapLine> = {
  ...{ id: 'term', name: 'search term', px: 150, share: 1, isText: true, isSortable: true },
  value: ({ term }) => term,
  cell: ({ term }) => <b>{term}</b>,
};

const SERVERS: Column<OverlapLine> = {
  ...{ id: 'servers', name: 'served by', px: 64, isSortable: true },
  value: ({ servers }) => servers.length,
  cell: ({ servers }) => formatCount(servers.length),
};
