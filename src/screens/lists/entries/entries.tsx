'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { ListsView } from '@/contracts/lists';
import { formatCount } from '@/ui/format';
import type { ListsUrl } from '../lists-url';
import { namedOptions, optionsIn, Select } from '@/ui/select';
import { EntriesInHand } from './entries-in-hand';
import { EntriesTable } from './entries-table';
import { useEntryLayout } from './entry-columns';
import { ENTRY_KINDS, pickEntries, toRows, type EntryKind } from './pick-entries';
import type { Sort } from '@/ui/table/use-layout';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { EmptyState, ErrorText } from '@/ui/said';

type Props = {
  view: ListsView;
  url: ListsUrl;
  onChange: (change: Partial<ListsUrl>) => void;
};

/** What stands in one list: what each entry stopped, what is wrong with it, and what can be done with it. */
export function Entries({ view, url, onChange }: Props) {
  const list = view.lists.find((l) => l.id === url.list) ?? view.lists[0];
  const params = { list: list?.id ?? '' };
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/[list]', { params }),
    enabled: list !== undefined,
    placeholderData: keepPreviousData,
  });
  const isWords = list?.holds === 'words';
  const { data: health } = useQuery({
    ...query('GET lists/[list]/health', { params }),
    enabled: isWords && !list.isNew && data !== undefined, // the entries come first
  });
  const [kind, setKind] = useState<EntryKind>('all');
  const [text, setText] = useState('');
  const [sort, setSort] = useState<Sort>({ by: 'text', isDown: false });
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState(0);
  const picked = useMemo(
    () => pickEntries(toRows(data?.entries ?? [], health), { kind, text }),
    [data, health, kind, text],
  );
  const layout = useEntryLayout(picked, isWords, sort);
  const { rows } = layout;
  if (!list)
    return <EmptyState className="flex-1">No list yet. Make one, or paste lines into a new one.</EmptyState>;
  const at = Math.min(cursor, Math.max(0, rows.length - 1));
  const marked = rows.filter((row) => marks.has(row.key));
  return (
    <>
      <form
        aria-label="Filters"
        className="flex flex-wrap items-baseline gap-x-1.5 border-b border-line px-4 py-1.5 text-table text-soft"
        onSubmit={(e) => e.preventDefault()}
      >
        <Select
          look="word"
          label="Kind of entry"
          value={kind}
          options={optionsIn(Object.keys(ENTRY_KINDS) as EntryKind[], ENTRY_KINDS)}
          onChange={setKind}
        />
        of
        <Select
          look="word"
          label="List"
          value={list.id}
          options={namedOptions(view.lists)}
          onChange={(id) => {
            setMarks(new Set());
            setCursor(0);
            onChange({ list: id });
          }}
        />
        holding
        <input
          aria-label="Text holds"
          placeholder="anything"
          className="w-[110px] border-b border-dashed border-ink bg-transparent font-semibold text-ink placeholder:text-ink"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <span className="ml-auto" data-testid="entries-shown">
          {rows.length === data?.entries.length
            ? counted(rows.length, 'entry', 'entries')
            : `${formatCount(rows.length)} of ${counted(data?.entries.length ?? 0, 'entry', 'entries')}`}
          , room for {formatCount(data?.list.room ?? list.room)} more
        </span>
      </form>
      <ErrorText error={error} isWhole />
      <EntriesTable
        name={list.name}
        layout={layout}
        cursor={at}
        marks={marks}
        sort={sort}
        onCursor={setCursor}
        onMark={setMarks}
        onSort={setSort}
      />
      {data && data.list.id === list.id && (
        <EntriesInHand
          key={marked.length > 0 ? 'marked' : (rows[at]?.key ?? 'none')}
          view={view}
          entries={data}
          rows={marked.length > 0 ? marked : rows[at] ? [rows[at]] : []}
          isMarked={marked.length > 0}
          onDone={() => setMarks(new Set())}
        />
      )}
    </>
  );
}
