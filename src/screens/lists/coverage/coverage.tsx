'use client';

import { useMemo } from 'react';
import type { ListsView } from '@/contracts/lists';
import { StateIcon, type StateIconKind } from '@/ui/state-icon';
import type { Cells } from '@/ui/table/cells';
import { SaveMenu } from '@/ui/table/save-menu';
import { CellInHand } from '../hand/hanging/cell-in-hand';
import { HangingsInHand } from '../hand/hanging/hangings-in-hand';
import { hangingsToMake } from '../hand/hanging/hangings';
import { useHang } from '../hand/hanging/use-hang';
import type { ListsUrl } from '../lists-url';
import { cellsOf, willHang } from './cells';
import { columnsOf, isShown } from './columns';
import { CoverageFilters } from './coverage-filters';
import { CoverageGrid } from './coverage-grid';
import { pickedOf, useSelection } from './use-selection';
import { EmptyState } from '@/ui/said';

/** The grid as cells: a row a list, a column a campaign, groups opened. */
function coverageCells(
  { campaigns }: ListsView,
  lists: ListsView['lists'],
  cells: ReadonlyMap<string, ReturnType<typeof cellsOf>>,
): Cells {
  return {
    header: ['list', ...campaigns.map(({ name }) => name)],
    rows: lists.map(({ id, name }) => [
      name,
      ...campaigns.map((_, c) => (willHang(cells.get(id)!, c) ? 'hangs' : 'open')),
    ]),
  };
}

type Props = { view: ListsView; url: ListsUrl; onChange: (change: Partial<ListsUrl>) => void };

const LEGEND: { kind: StateIconKind; said: string }[] = [
  { kind: 'stopped', said: 'hung' },
  { kind: 'hurting', said: 'hung, touches a live keyword' },
  { kind: 'drafted', said: 'in the tray' },
  { kind: 'open', said: 'open' },
  { kind: 'warned', said: 'open, would touch a live keyword' },
];

/** Lists × campaigns: where each list hangs, and hanging and taking down. */
export function Coverage({ view, url, onChange }: Props) {
  const { campaigns } = view;
  const hang = useHang();
  const lists = useMemo(
    () => view.lists.filter((list) => url.holds === 'any' || list.holds === url.holds),
    [view, url.holds],
  );
  const { name, status, channel, label, turned } = url;
  const { columns, groups } = useMemo(() => {
    const shown = campaigns.flatMap((c, i) => (isShown(c, { name, status, channel, label }) ? [i] : []));
    return columnsOf(campaigns, shown, turned);
  }, [campaigns, name, status, channel, label, turned]);
  const cells = useMemo(
    () => new Map(view.lists.map((list) => [list.id, cellsOf(list, campaigns.length)])),
    [view, campaigns],
  );
  const hasList = useMemo(
    () => campaigns.map((_, c) => [...cells.values()].some((of) => willHang(of, c))),
    [campaigns, cells],
  );
  const { selection, goTo, pick } = useSelection();
  const picked = pickedOf(selection, columns, lists.length);
  const pickedLists = picked.lists.map((row) => lists[row]!);
  const campaignIds = picked.campaigns.map((c) => campaigns[c]!.id);

  function turn() {
    const toHang = hangingsToMake(view, pickedLists, campaignIds, true);
    const isHang = toHang.length > 0;
    void hang.turn(isHang ? toHang : hangingsToMake(view, pickedLists, campaignIds, false), isHang);
  }

  const isOne = pickedLists.length === 1 && campaignIds.length === 1;
  return (
    <>
      <CoverageFilters view={view} url={url} shown={columns} onChange={onChange} />
      {columns.length === 0 || lists.length === 0 ? (
        <EmptyState className="flex-1">
          {lists.length === 0
            ? 'No list is shown. Make one, or show lists of every kind.'
            : 'No campaign is under these filters. Loosen them.'}
        </EmptyState>
      ) : (
        <CoverageGrid
          key={lists.length === 0 ? 'none' : 'grid'}
          {...{ lists, cells, columns, groups, hasList, selection }}
          onGo={goTo}
          onPick={pick}
          onTurn={turn}
          onFold={(group) =>
            onChange({
              turned: turned.includes(group) ? turned.filter((g) => g !== group) : [...turned, group],
            })
          }
        />
      )}
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line px-4 py-1.5 text-small text-soft">
        {LEGEND.map(({ kind, said }) => (
          <span key={kind}>
            <StateIcon kind={kind} /> {said}
          </span>
        ))}
        <span>Enter hangs or takes down, Space marks the row</span>
        <span className="ml-auto">
          <SaveMenu name="coverage" cells={() => coverageCells(view, lists, cells)} />
        </span>
      </p>
      {isOne ? (
        <CellInHand view={view} list={pickedLists[0]!} campaignId={campaignIds[0]!} hang={hang} />
      ) : (
        <HangingsInHand view={view} lists={pickedLists} campaignIds={campaignIds} hang={hang} />
      )}
    </>
  );
}
