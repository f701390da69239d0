'use client';

import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { parseAsBoolean, parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import Link from 'next/link';
import { useEffect, useMemo } from 'react';
import { LEDGER_ABOUT } from '@/contracts/ledger';
import { sayDays } from '@/contracts/days';
import { useAccount } from '@/screens/frame/account-context';
import { useBesideDays } from '@/screens/frame/beside-columns';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { DataTable } from '@/ui/table/data-table';
import { optionsIn, Select } from '@/ui/select';
import { inMemory, useLayout } from '@/ui/table/use-layout';
import { OnWhat } from './on-what';
import { EntryInHand } from './entry-in-hand';
import { SavedSoFarLine } from './saved-said';
import { useLedgerColumns } from './ledger-columns';
import { ErrorText } from '@/ui/said';

/** What an entry is about, in words. */
const ABOUT: Record<(typeof LEDGER_ABOUT)[number], string> = {
  change: 'what was sent',
  keep: 'what was kept or set aside',
  load: 'loads',
  note: 'notes',
  tag: 'words',
  view: 'views',
  setting: 'settings',
  research: 'research',
  knot: 'knots that were left',
  rule: 'rules',
  lanes: 'lane plans',
};

/** Everything that was changed: by whom, when, why, what came of it, with undo. */
export function LedgerScreen() {
  const { call, query } = useRoutes();
  const { summary, people } = useAccount();
  const { slug } = summary;
  const [single] = useSingleKeys();
  const [url, setUrl] = useQueryStates({
    entry: parseAsInteger,
    about: parseAsStringLiteral(LEDGER_ABOUT),
    find: parseAsString.withDefault(''),
    who: parseAsString,
    on: parseAsString,
    term: parseAsString,
    by: parseAsString.withDefault('at'),
    down: parseAsBoolean.withDefault(true),
  });
  const [days] = useDays();
  const beside = useBesideDays();
  const filters = {
    ...(url.about && { about: url.about }),
    ...(url.find.trim() && { find: url.find.trim() }),
    ...(url.who && { who: url.who }),
    ...(url.on ? { on: url.on } : url.term && { term: url.term }),
  };
  const asked = { ...filters, ...(beside && { ...inDays(days), beside: sayDays(beside) }) };
  const { data, error, fetchNextPage, hasNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: query('GET ledger', { query: asked }).queryKey,
    queryFn: ({ pageParam }) =>
      call('GET ledger', { query: { ...asked, ...(pageParam !== null && { before: String(pageParam) }) } }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
  const lines = useMemo(() => data?.pages.flatMap((page) => page.lines) ?? [], [data]);
  const { data: saved } = useQuery({ ...query('GET ledger/saved'), placeholderData: keepPreviousData });
  const savedOf = useMemo(() => new Map(saved?.changes.map((one) => [one.id, one])), [saved]);
  const columns = useLedgerColumns(beside, savedOf);
  const sort = { by: url.by, isDown: url.down };
  const layout = useLayout('ledger', columns, lines, sort);
  const { rows } = layout;
  const at = Math.max(
    0,
    rows.findIndex((line) => line.id === url.entry),
  );
  // Newest first, older entries follow as they come into sight; in any other order all are needed.
  const isNewestFirst = url.by === 'at' && url.down;
  useEffect(() => {
    if (!isNewestFirst && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [isNewestFirst, hasNextPage, isFetchingNextPage, fetchNextPage]);
  // An entry that an address names may be older than those that are there.
  const isOlder = url.entry !== null && lines.length > 0 && url.entry < lines.at(-1)!.id;
  useEffect(() => {
    if (isOlder && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [isOlder, hasNextPage, isFetchingNextPage, fetchNextPage]);
  const goOn = (to: number) => {
    if (to >= rows.length - 20 && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Ledger</h1>
        <form
          role="search"
          aria-label="Filters"
          className="flex flex-wrap items-baseline gap-x-1.5 text-soft"
          onSubmit={(event) => {
            event.preventDefault();
            document.getElementById('ledger')?.focus();
          }}
        >
          <Select
            id="first-filter"
            label="What it is about"
            look="word"
            options={[{ key: '', says: 'everything' }, ...optionsIn(LEDGER_ABOUT, ABOUT)]}
            value={url.about ?? ''}
            onChange={(about) => void setUrl({ about: about === '' ? null : about, entry: null })}
          />
          by
          <Select
            label="Who did it"
            look="word"
            options={[
              { key: '', says: 'anyone' },
              ...people.map(({ id, name }) => ({ key: String(id), says: name })),
              { key: 'rules', says: 'rules' },
              { key: 'nobody', says: 'nobody here' },
            ]}
            value={url.who ?? ''}
            onChange={(who) => void setUrl({ who: who === '' ? null : who, entry: null })}
          />
          <OnWhat
            on={url.on}
            term={url.term}
            onChange={(what) => void setUrl({ on: null, term: null, ...what, entry: null })}
          />
          that says
          <input
            aria-label="Entries that say this"
            placeholder="anything"
            className="min-h-6 w-[150px] border-b border-dashed border-soft bg-transparent font-semibold text-ink placeholder:text-soft"
            value={url.find}
            onChange={(e) => void setUrl({ find: e.target.value, entry: null })}
          />
        </form>
        <Link
          className="ml-auto whitespace-nowrap text-pine hover:underline"
          href={`/${slug}/ledger/as-it-was`}
        >
          As it was
        </Link>
      </header>
      <SavedSoFarLine soFar={saved?.soFar ?? null} />
      <ErrorText error={error} isWhole />
      <DataTable
        id="ledger"
        label="Entries of the ledger"
        {...inMemory(layout)}
        cursor={at}
        onCursor={(index) => void setUrl({ entry: rows[index]?.id ?? null })}
        sort={sort}
        onSort={({ by, isDown }) => void setUrl({ by, down: isDown })}
        onKey={({ key }) => {
          if (!single || (key !== 'u' && key !== 'f')) return false;
          if (key === 'f') document.getElementById('first-filter')?.focus();
          else document.querySelector<HTMLElement>(`#ledger-row-${at} [data-undo]`)?.click();
          return true;
        }}
        onDrawn={(_, to) => goOn(to)}
        isMeasured
        rowPx={48}
        saveAs="ledger"
        keysHelp="Arrows go through the entries, u undoes the one in hand, f goes to the filters."
        empty={data && (Object.keys(filters).length > 0 ? 'No entry says this.' : 'Nothing was changed yet.')}
      />
      <EntryInHand line={rows[at]} isSavedKnown={savedOf.has(rows[at]?.change?.id ?? 0)} />
    </div>
  );
}
