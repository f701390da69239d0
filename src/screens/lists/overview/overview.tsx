'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useRef, type KeyboardEvent } from 'react';
import type { ListHealth, ListLine, ListsView, Stopped } from '@/contracts/lists';
import { formatConversions, formatCount, formatDay } from '@/ui/format';
import { ListInHand } from '../hand/list-in-hand';
import type { ListsUrl } from '../lists-url';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

type Props = {
  view: ListsView;
  url: ListsUrl;
  onChange: (change: Partial<ListsUrl>) => void;
  onPaste: () => void;
};

/** Where the screen is narrow, what room is left stands in hand alone, and the last change in the list's history. */
const COLUMNS =
  'grid gap-x-2 px-4 grid-cols-[minmax(0,1fr)_50px_82px_42px_42px_58px_68px_56px] @min-[780px]:grid-cols-[minmax(0,1fr)_50px_58px_82px_42px_42px_58px_68px_56px_96px]';
const WIDE = '@max-[780px]:hidden';

/** Each list with what it holds, where it hangs, what it stopped, and what is wrong with it. */
export function Overview({ view, url, onChange, onPaste }: Props) {
  const { query } = useRoutes();
  const { data: health, error } = useQuery({
    ...query('GET lists/health'),
  });
  const grid = useRef<HTMLDivElement>(null);
  const { lists } = view;
  const at = Math.max(
    0,
    lists.findIndex((l) => l.id === url.list),
  );
  const chosen = lists[at];

  function onKey(event: KeyboardEvent) {
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: lists.length - 1 }[event.key];
    if (to !== undefined) {
      const next = lists[Math.max(0, Math.min(lists.length - 1, to))];
      if (!next) return;
      onChange({ list: next.id });
      document.getElementById(`list-${next.id}`)?.scrollIntoView({ block: 'nearest' });
    } else if (event.key === 'Enter' && chosen) onChange({ show: 'entries', list: chosen.id });
    else return;
    event.preventDefault();
  }

  const bare = view.campaigns.filter((_, c) => !lists.some((l) => hangsOn(l, c)));
  return (
    <>
      <div
        ref={grid}
        role="grid"
        tabIndex={0}
        aria-label="Shared lists"
        aria-activedescendant={chosen ? `list-${chosen.id}` : undefined}
        className="group/grid @container min-h-0 flex-1 overflow-y-auto text-table focus-visible:outline-none"
        onKeyDown={onKey}
      >
        <div
          role="row"
          className={`sticky top-0 z-10 ${COLUMNS} h-[44px] items-end border-b border-line bg-sheet pb-1 text-small leading-4 text-soft`}
        >
          <div role="columnheader">list</div>
          {['entries', 'room left', 'hangs on', 'terms', 'clicks', 'cost', 'converting', 'needless'].map(
            (name) => (
              <div
                key={name}
                role="columnheader"
                className={`text-right ${name === 'room left' ? WIDE : ''}`}
                title={TITLES[name]}
              >
                {name}
              </div>
            ),
          )}
          <div role="columnheader" className={WIDE}>
            last change
          </div>
        </div>
        {lists.map((list) => (
          <Row
            key={list.id}
            list={list}
            health={health?.lists[list.id]}
            isChosen={list.id === chosen?.id}
            onChoose={() => {
              onChange({ list: list.id });
              grid.current?.focus({ preventScroll: true });
            }}
            onOpen={() => onChange({ show: 'entries', list: list.id })}
          />
        ))}
        {error && <p className="p-4 text-rust">{error.message}</p>}
      </div>
      <p className="border-t border-line px-4 py-1.5 text-small text-soft">
        Terms, clicks and cost are what each list stopped, estimated from the {view.window.days} days before
        it hung there: what is stopped is never reported. “–” where it hung before the first day of data.
        {bare.length > 0 && (
          <span className="text-rust">
            {' '}
            {counted(bare.length, 'campaign has', 'campaigns have')} no list at all:{' '}
            {bare
              .slice(0, 4)
              .map((c) => c.name)
              .join(', ')}
            {bare.length > 4 && ` and ${bare.length - 4} more`}.
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

const TITLES: Record<string, string> = {
  'room left': 'Entries that the list can still take',
  terms: 'Terms that it stopped, estimated',
  clicks: 'Clicks that it saved, estimated',
  cost: 'Cost that it saved, estimated',
  converting: 'Terms among them that had converted before: stopped by mistake, perhaps',
  needless: 'Entries that another negative makes needless',
};

const hangsOn = ({ hungOn, drafted }: ListLine, campaign: number) => {
  const inTray = drafted.find((d) => d.campaign === campaign || d.campaign === null);
  return inTray ? inTray.hang : hungOn === 'account' || hungOn.includes(campaign);
};

type RowProps = {
  list: ListLine;
  health: ListHealth | undefined;
  isChosen: boolean;
  onChoose: () => void;
  onOpen: () => void;
};

function Row({ list, health, isChosen, onChoose, onOpen }: RowProps) {
  const { hungOn, room } = list;
  const nowhere = hungOn !== 'account' && hungOn.length === 0;
  const stopped = health?.stopped;
  return (
    <div
      role="row"
      id={`list-${list.id}`}
      aria-selected={isChosen}
      className={`${COLUMNS} h-[34px] cursor-pointer items-center border-b border-line ${isChosen ? 'border-l-[3px] border-l-pine bg-raised pl-[13px] -outline-offset-2 outline-pine group-focus-visible/grid:outline-2' : ''}`}
      onClick={onChoose}
      onDoubleClick={onOpen}
    >
      <div role="rowheader" className="truncate" title={list.name}>
        <b>{list.name}</b> <span className="text-soft">{list.holds === 'placements' && 'placements'}</span>{' '}
        {list.waits && <span className="text-rust">changed elsewhere</span>}
        {list.wanted.length > 0 && <span className="text-pine">+{list.wanted.length} by rule</span>}
      </div>
      <div role="gridcell" className="text-right">
        {formatCount(list.entries)}
      </div>
      <div
        role="gridcell"
        className={`${WIDE} text-right ${room < 100 ? 'font-semibold text-rust' : 'text-soft'}`}
      >
        {formatCount(room)}
      </div>
      <div role="gridcell" className={`text-right ${nowhere ? 'font-semibold text-rust' : ''}`}>
        {list.isNew
          ? 'in the tray'
          : hungOn === 'account'
            ? 'the account'
            : nowhere
              ? 'nowhere'
              : counted(hungOn.length, 'campaign')}
      </div>
      <Estimates stopped={stopped} />
      <div
        role="gridcell"
        className={`text-right ${(health?.redundant ?? 0) > 0 ? 'text-timber' : 'text-soft'}`}
      >
        {health ? formatCount(health.redundant) : ''}
      </div>
      <div role="gridcell" className={`${WIDE} truncate text-soft`}>
        {health && <LastChange last={health.last} />}
      </div>
    </div>
  );
}

function Estimates({ stopped }: { stopped: Stopped | undefined }) {
  const formatMoney = useMoney();
  const isKnown = stopped !== undefined && stopped.known > 0;
  const say = (text: string) => (stopped === undefined ? '' : isKnown ? text : '–');
  const wrong = stopped?.returningTerms ?? 0;
  return (
    <>
      <div role="gridcell" className="text-right">
        {say(formatCount(stopped?.terms ?? 0))}
      </div>
      <div role="gridcell" className="text-right">
        {say(formatCount(stopped?.clicks ?? 0))}
      </div>
      <div role="gridcell" className="text-right">
        {say(formatMoney(stopped?.costMicros ?? 0))}
      </div>
      <div
        role="gridcell"
        className={`text-right ${wrong > 0 ? 'font-semibold text-rust' : 'text-soft'}`}
        title={
          wrong > 0
            ? `${counted(wrong, 'term')} with ${formatConversions(stopped!.conversions)} conversions`
            : undefined
        }
      >
        {say(formatCount(wrong))}
      </div>
    </>
  );
}

function LastChange({ last }: { last: ListHealth['last'] }) {
  if (!last) return '–';
  const day = formatDay(last.at.slice(0, 10), true);
  const by = last.by ?? (last.isKnown ? 'somebody else, on the platform' : 'when its newest entry came');
  return (
    <span title={`${day}, ${by}`}>
      {last.isKnown ? `${formatDay(last.at.slice(0, 10))} ${last.by ?? 'elsewhere'}` : day}
    </span>
  );
}
