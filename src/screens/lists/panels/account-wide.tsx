'use client';

import { useMoney, useUnits } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { entryKey, type AccountWideView } from '@/contracts/list-entries';
import { InHand } from '@/screens/frame/in-hand';
import { formatCount, formatDay } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { marksByKey } from '@/ui/table/row-marks';
import { inMemory, useLayout, type Sort } from '@/ui/table/use-layout';
import { EditInHand } from '../edit/edit-in-hand';
import { NameField } from './could-be';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, type NegativeText } from '@/core';
import { ErrorText } from '@/ui/said';

type Entry = AccountWideView['entries'][number];

/** Negatives on the whole account, the room that is left, and moving them into a list that hangs on the whole account. */
export function AccountWide() {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/account-wide'),
  });
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState(0);
  const [sort, setSort] = useState<Sort | null>(null);
  const columns = useEntryColumns();
  const layout = useLayout('account-wide', columns, data?.entries ?? NONE, sort);
  const { rows } = layout;
  const marked = rows.filter((e) => marks.has(keyOf(e)) && e.drafted === null);
  const distinct = [...new Map(marked.map((e) => [keyOf(e), { text: e.text, match: e.match }])).values()];
  return (
    <>
      <ErrorText error={error} isWhole />
      {data && (
        <p className="border-b border-line px-4 py-1.5 text-table text-soft">
          {formatCount(data.used)} of {formatCount(data.most)} used; room for{' '}
          {counted(Math.max(0, data.most - data.used), 'more', 'more')}. A list that hangs on the whole
          account stops the same and leaves that room free.
        </p>
      )}
      <DataTable
        id="account-wide"
        label="Account-wide negatives"
        {...inMemory(layout)}
        cursor={Math.min(cursor, Math.max(0, rows.length - 1))}
        onCursor={setCursor}
        sort={sort}
        onSort={setSort}
        marks={marksByKey(rows, keyOf, marks, setMarks)}
        saveAs="account-wide negatives"
        empty={data && 'No negative stands on the whole account.'}
      />
      <Gathering entries={distinct} onDone={() => setMarks(new Set())} />
    </>
  );
}

const NONE: readonly Entry[] = [];
const keyOf = ({ match, text }: Entry) => entryKey(match, text);

function useEntryColumns(): readonly Column<Entry>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(() => {
    const columns: Column<Entry>[] = [
      {
        ...{ id: 'text', name: 'text', px: 160, share: 1, most: 460, isText: true, isSortable: true },
        value: ({ text }) => text,
        cell: ({ text, drafted }) => (
          <span className={drafted === 'removed' ? 'line-through' : ''}>
            {text}
            {drafted === 'said to be done' && <span className="text-small text-pine"> said to be done</span>}
          </span>
        ),
      },
      {
        ...{ id: 'match', name: 'match', px: 60, isText: true, isSortable: true },
        value: ({ match }) => match,
        cell: ({ match }) => <MatchChip match={match} />,
      },
      {
        ...{ id: 'since', name: 'since', px: 84, isText: true, isSortable: true, isDownFirst: true },
        value: ({ since }) => since?.slice(0, 10) ?? null,
        cell: ({ since }) => (
          <span className="text-soft">{since && formatDay(since.slice(0, 10), true)}</span>
        ),
      },
      {
        ...{ id: 'terms', name: 'terms', fullName: 'terms in these days', px: 52, isSortable: true },
        explains: 'Terms of these days that it stops.',
        value: ({ stops }) => stops.terms,
        cell: ({ stops }) => formatCount(stops.terms),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 66, isSortable: true },
        value: ({ stops }) => units(stops.costMicros),
        cell: ({ stops }) => money(stops.costMicros),
      },
      {
        ...{
          id: 'needless',
          name: 'needless by',
          px: 100,
          share: 1,
          most: 300,
          isText: true,
          isSortable: true,
        },
        value: ({ coveredBy }) => coveredBy,
        cell: ({ coveredBy }) => <span className="text-timber">{coveredBy}</span>,
      },
    ];
    return columns;
  }, [money, units]);
}

/** The marked negatives, as the list that they could be. */
function Gathering({ entries, onDone }: { entries: readonly NegativeText[]; onDone: () => void }) {
  const [name, setName] = useState('Everywhere');
  return (
    <InHand title={entries.length > 0 ? counted(entries.length, 'account-wide negative') : undefined}>
      {entries.length === 0 ? (
        <p className="mt-1 text-table text-soft">Mark those that are to be a list.</p>
      ) : (
        <EditInHand
          edit={{
            ...{ do: 'gather', name: name.trim() || 'Everywhere', entries: [...entries] },
            from: [{ kind: 'account', id: null }],
          }}
          onDone={onDone}
          onLeave={onDone}
        >
          <NameField name={name} onChange={setName} />
        </EditInHand>
      )}
    </InHand>
  );
}
