'use client';

import type { StandingLine } from '@/contracts/standing';
import { formatDay } from '@/ui/format';
import type { Column } from '@/ui/table/column';

const IS: Record<StandingLine['is'], string> = {
  same: 'the same',
  gone: 'gone since',
  new: 'came since',
  renamed: 'another name',
};
const TONE: Record<StandingLine['is'], string> = {
  ...{ same: 'text-soft', gone: 'text-rust', new: 'text-moss', renamed: 'text-timber' },
};

export const STANDING_COLUMNS: readonly Column<StandingLine>[] = [
  {
    ...{ id: 'is', name: 'beside now', px: 96, isText: true, isSortable: true },
    value: ({ is }) => IS[is],
    cell: ({ is }) => <span className={TONE[is]}>{IS[is]}</span>,
  },
  {
    ...{ id: 'what', name: 'element', px: 140, share: 2, isText: true, isSortable: true },
    value: ({ what }) => what,
    cell: ({ what }) => what,
  },
  {
    ...{ id: 'where', name: 'where', px: 120, share: 2, isText: true, isSortable: true },
    value: ({ where }) => where,
    cell: ({ where }) => <span className="text-soft">{where}</span>,
  },
  {
    ...{ id: 'from', name: 'stood from', px: 92, isSortable: true, isDownFirst: true },
    value: ({ from }) => from ?? '',
    cell: ({ from }) => (from === null ? 'always' : formatDay(from, true)),
  },
  {
    ...{ id: 'until', name: 'up to', px: 92, isSortable: true, isDownFirst: true },
    value: ({ until, from }) => until ?? from ?? '',
    cell: ({ until }) => (until === null ? 'now' : formatDay(until, true)),
  },
];
