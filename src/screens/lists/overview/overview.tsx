'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { ListLine, ListsView } from '@/contracts/lists';
import { ListInHand } from '../hand/list-in-hand';
import type { ListsUrl } from '../lists-url';
import { sayDays } from '@/contracts/days';
import { useBesideDays } from '@/screens/frame/beside-columns';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout } from '@/ui/table/use-layout';
import { counted, listed } from '@/core';
import { useListColumns } from './list-columns';
import { ErrorText } from '@/ui/said';

type Props = {
  view: ListsView;
  url: ListsUrl;
  onChange: (change: Partial<ListsUrl>) => void;
  onPaste: () => void;
};

/** Each list with what it holds, where it hangs, what it stopped, and what is wrong with it. */
export function Overview({ view, url, onChange, onPaste }: Props) {
  const { query } = useRoutes();
  const { data: health, error } = useQuery({
    ...query('GET lists/health'),
  });
  const [days] = useDays();
  const beside = useBesideDays();
  const { data: figures } = useQuery({
    ...query('GET lists/beside', { query: { ...inDays(days), beside: beside ? sayDays(beside) : '' } }),
    enabled: beside !== null,
  });
  const columns = useListColumns(beside);
  const found = useMemo(() => {
    const wanted = url.find.trim().toLowerCase();
    return view.lists
      .filter(({ name }) => name.toLowerCase().includes(wanted))
      .map((list) => ({
        list,
        health: health?.lists[list.id],
        beside: figures?.lists[list.id],
        campaigns: view.campaigns.length,
      }));
  }, [view, health, figures, url.find]);
  const sort = url.by === '' ? null : { by: url.by, isDown: url.down };
  const layout = useLayout('lists', columns, found, sort);
  const { rows } = layout;
  const at = Math.max(
    0,
    rows.findIndex(({ list }) => list.id === url.list),
  );
  const chosen = rows[at]?.list;
  const bare = view.campaigns.filter((_, c) => !view.lists.some((l) => hangsOn(l, c)));
  return (
    <>
      <DataTable
        id="lists"
        label="Shared lists"
        {...inMemory(layout)}
        rowPx={34}
        cursor={at}
        onCursor={(index) => onChange({ list: rows[index]!.list.id })}
        onOpen={(index) => rows[index] && onChange({ show: 'entries', list: rows[index].list.id })}
        sort={sort}
        onSort={({ by, isDown }) => onChange({ by, down: isDown })}
        saveAs="shared lists"
        empty={view.lists.length > 0 && 'No list has this in its name.'}
      />
      <ErrorText error={error} isWhole />
      <p className="border-t border-line px-4 py-1.5 text-small text-soft">
        Terms, clicks and cost are what each list stopped, estimated from the {view.window.days} days before
        it hung there: what is stopped is never reported. “–” where it hung before the first day of data.
        {bare.length > 0 && (
          <span className="text-rust">
            {' '}
            {counted(bare.length, 'campaign has', 'campaigns have')} no list at all:{' '}
            {listed(
              bare.slice(0, 4).map((c) => c.name),
              bare.length,
            )}
            .
          </span>
        )}
      </p>
      {chosen && (
        <ListInHand
          key={chosen.id}
          view={view}
          list={chosen}
          health={health?.lists[chosen.id]}
          onChange={onChange}
          onPaste={onPaste}
        />
      )}
    </>
  );
}

const hangsOn = ({ hungOn, drafted }: ListLine, campaign: number) => {
  const inTray = drafted.find((d) => d.campaign === campaign || d.campaign === null);
  return inTray ? inTray.hang : hungOn === 'account' || hungOn.includes(campaign);
};
