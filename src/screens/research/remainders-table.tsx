'use client';

import { useMemo } from 'react';
import type { RemainderLine, RemaindersPage } from '@/contracts/research';
import { useMoney } from '@/screens/frame/money';
import { NotServed } from '@/screens/frame/not-served';
import { SureBar } from '@/screens/sift/table/meter';
import { formatCount } from '@/ui/format';
import { marksByKey } from '@/ui/table/row-marks';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useLayout } from '@/ui/table/use-layout';
import type { RemainderChoice } from './hand/use-remainder';
import type { ResearchUrl } from './research-url';

type Props = {
  page: RemaindersPage | undefined;
  cursor: number;
  remainder: RemainderChoice;
  sort: ResearchUrl['sort'];
  isStale: boolean;
  view: string;
  marks: ReadonlySet<string>;
  onMark: (marks: ReadonlySet<string>) => void;
  onCursor: (index: number) => void;
  onSort: (sort: ResearchUrl['sort']) => void;
};

const NO_LINES: RemainderLine[] = [];
/** Sure enough to be offered as at fault (rules 7.12). */
const OFFERED = 0.9;
const SORT_OF: Record<string, ResearchUrl['sort']> = {
  ideas: 'ideas',
  searches: 'searches',
  related: 'least related',
  fault: 'at fault',
};
const COLUMN_OF = Object.fromEntries(Object.entries(SORT_OF).map(([column, sort]) => [sort, column]));

/** What is left of the ideas, a row each. */
export function RemaindersTable({ page, cursor, remainder, sort, ...props }: Props) {
  const columns = useColumns();
  const lines = page?.lines ?? NO_LINES;
  const layout = useLayout('remainders', columns, lines, null);
  return (
    <DataTable
      id="remainders"
      label="Remainders"
      layout={layout}
      count={lines.length}
      rowAt={(index) => lines[index]}
      cursor={cursor}
      onCursor={props.onCursor}
      sort={{ by: COLUMN_OF[sort]!, isDown: sort !== 'least related' }}
      onSort={(_, { id }) => SORT_OF[id] && props.onSort(SORT_OF[id])}
      marks={marksByKey(lines, ({ text }) => text, props.marks, props.onMark)}
      onKey={(event) => remainder.onKey(event)}
      isStale={props.isStale}
      view={props.view}
      saveAs="remainders"
      keysHelp="Arrows move, Space marks; Enter puts what is in hand or marked in the tray, digits pick a word of it, m turns the match type, v takes the other forms with it, o keeps the ideas, x drops them from the sheet, y copies the lines."
      empty={page && <p>No idea is left under these filters. Gather more, or loosen them.</p>}
    />
  );
}

function useColumns(): readonly Column<RemainderLine>[] {
  const money = useMoney();
  return useMemo(
    (): Column<RemainderLine>[] => [
      {
        ...{ id: 'text', name: 'what is left', px: 150, share: 1, isText: true },
        value: ({ text }) => text,
        cell: ({ text, forms, location }) => (
          <>
            <b>{text}</b> {location !== null && <NotServed name={text} kind={location} />}
            {forms.length > 1 && <span className="ml-1.5 text-soft">{forms.slice(1).join(', ')}</span>}
          </>
        ),
      },
      {
        ...{ id: 'ideas', name: 'ideas', px: 62, isSortable: true, isDownFirst: true },
        value: ({ ideas }) => ideas,
        cell: ({ ideas }) => formatCount(ideas),
      },
      {
        ...{ id: 'searches', name: 'searches', fullName: 'searches a month', px: 84, isSortable: true },
        value: ({ volume }) => volume,
        cell: ({ volume }) => (volume === null ? '–' : formatCount(volume)),
      },
      {
        ...{ id: 'bid', name: 'bid', fullName: 'opening bid', px: 56, yields: true },
        value: ({ openingBidMicros }) => (openingBidMicros === null ? null : openingBidMicros / 1e6),
        cell: ({ openingBidMicros }) => (openingBidMicros === null ? '–' : money(openingBidMicros)),
      },
      {
        ...{ id: 'related', name: 'related', px: 68, isSortable: true, yields: true },
        explains: 'How near the ideas are to what was asked of the idea source: 100 % is the stem itself.',
        value: ({ relatedness }) => relatedness,
        cell: ({ relatedness }) =>
          relatedness === null ? '–' : `${formatCount(Math.round(100 * relatedness))} %`,
      },
      {
        ...{ id: 'fault', name: 'at fault here', px: 96, isSortable: true },
        explains: 'How surely the word brings less than its ad groups do, by the account’s own data.',
        value: ({ fault }) => fault,
        cell: ({ fault }) =>
          fault === null ? (
            <span className="text-soft">not seen</span>
          ) : (
            <SureBar sure={fault} settledFrom={OFFERED} says={`${Math.round(100 * fault)} % sure`} />
          ),
      },
      {
        ...{ id: 'example', name: 'for example', px: 140, share: 1, isText: true, yields: true },
        value: ({ example }) => example,
        cell: ({ example }) => <span className="text-soft">{example}</span>,
      },
    ],
    [money],
  );
}
