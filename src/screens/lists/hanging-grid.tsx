'use client';

import type { KeyboardEvent } from 'react';
import type { ListsView } from '@/contracts/screens';
import { formatCount } from '@/ui/format';
import { Mark, type MarkKind } from '@/ui/marks';

type Props = {
  view: ListsView;
  chosen: { list: string | null; campaign: string | null };
  onChoose: (list: string, campaign: string | null) => void;
  /** hangs a list on a campaign, or takes it down where it hangs */
  onTurn: (list: string, campaign: string, hangs: boolean) => void;
};

/** Lists by campaigns, a gate in each cell. */
export function HangingGrid({ view: { lists, campaigns }, chosen, onChoose, onTurn }: Props) {
  const campaignAt = chosen.campaign === null ? -1 : campaigns.findIndex((c) => c.id === chosen.campaign);
  const listAt = lists.findIndex((l) => l.id === chosen.list);

  function onKey(event: KeyboardEvent) {
    const step = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key];
    const list = lists[listAt];
    if (step) {
      const nextList = lists[Math.max(0, Math.min(lists.length - 1, listAt + step[0]!))];
      const nextCampaign = campaigns[Math.max(0, Math.min(campaigns.length - 1, campaignAt + step[1]!))];
      if (nextList) onChoose(nextList.id, nextCampaign?.id ?? null);
    } else if (event.key === 'Enter' && list && chosen.campaign !== null) {
      onTurn(list.id, chosen.campaign, hangsAfterTray(list, chosen.campaign));
    } else return;
    event.preventDefault();
  }

  return (
    <div
      className="min-h-0 flex-1 overflow-auto"
      role="grid"
      tabIndex={0}
      aria-label="Where each list hangs"
      aria-activedescendant={
        chosen.list && chosen.campaign ? `cell-${chosen.list}-${chosen.campaign}` : undefined
      }
      onKeyDown={onKey}
    >
      <div
        role="row"
        className="sticky top-0 z-10 flex h-[116px] items-end border-b border-line bg-sheet text-[12px] text-soft"
      >
        <div role="columnheader" className="w-[170px] shrink-0 px-4 pb-1.5">
          list
        </div>
        <div role="columnheader" className="w-[52px] shrink-0 pb-1.5 text-right">
          entries
        </div>
        <div role="columnheader" className="w-[66px] shrink-0 pr-3 pb-1.5 text-right">
          hangs on
        </div>
        {campaigns.map((c) => (
          <div key={c.id} role="columnheader" className="relative h-full w-[26px] shrink-0">
            <span
              className="absolute bottom-1 left-3 origin-bottom-left -rotate-[62deg] whitespace-nowrap"
              title={c.name}
            >
              {c.name.length > 24 ? `${c.name.slice(0, 23)}…` : c.name}
            </span>
          </div>
        ))}
      </div>
      {lists.map((list) => {
        const hungOn = list.hungOn === 'account' ? 'account' : formatCount(list.hungOn.length);
        const isChosen = list.id === chosen.list;
        return (
          <div
            key={list.id}
            role="row"
            aria-selected={isChosen}
            className={`flex h-[34px] items-center border-b border-line text-[13px] ${isChosen ? 'bg-raised' : ''}`}
          >
            <div role="rowheader" className="w-[170px] shrink-0 truncate px-4">
              <button
                type="button"
                tabIndex={-1}
                className="max-w-full truncate font-semibold hover:underline"
                title={list.name}
                onClick={() => onChoose(list.id, chosen.campaign)}
              >
                {list.name}
              </button>
            </div>
            <div role="gridcell" className="w-[52px] shrink-0 text-right">
              {formatCount(list.entries)}
            </div>
            <div
              role="gridcell"
              className={`w-[66px] shrink-0 pr-3 text-right ${hungOn === '0' ? 'font-semibold text-rust' : ''}`}
            >
              {list.isNew ? 'in the tray' : hungOn === '0' ? 'nowhere' : hungOn}
            </div>
            {campaigns.map((c) => {
              const kind = markOf(list, c.id);
              const current = isChosen && c.id === chosen.campaign;
              return (
                <div
                  key={c.id}
                  role="gridcell"
                  id={`cell-${list.id}-${c.id}`}
                  aria-selected={current}
                  className={`flex h-full w-[26px] shrink-0 items-center justify-center ${current ? 'outline-2 -outline-offset-2 outline-pine' : ''}`}
                >
                  <button
                    type="button"
                    tabIndex={-1}
                    aria-label={`${list.name} on ${c.name}: ${WORDS[kind]}`}
                    onClick={() => onChoose(list.id, c.id)}
                    onDoubleClick={() => onTurn(list.id, c.id, hangsAfterTray(list, c.id))}
                  >
                    <Mark kind={kind} className={kind === 'open' ? 'opacity-50' : ''} />
                  </button>
                </div>
              );
            })}
          </div>
        );
      })}
    </div>
  );
}

const WORDS: Record<MarkKind, string> = {
  stopped: 'hung',
  hurting: 'hung, touches a live keyword',
  drafted: 'in the tray',
  open: 'open',
  kept: 'kept',
  post: '',
};

type List = ListsView['lists'][number];

function hangs(list: List, campaignId: string): boolean {
  return list.hungOn === 'account' || list.hungOn.includes(campaignId);
}

/** Whether the list hangs there once the tray is sent. */
function hangsAfterTray(list: List, campaignId: string): boolean {
  return list.drafted[campaignId] ?? hangs(list, campaignId);
}

function markOf(list: List, campaignId: string): MarkKind {
  if (list.drafted[campaignId] !== undefined) return 'drafted';
  if (!hangs(list, campaignId)) return 'open';
  return (list.hurts[campaignId] ?? 0) > 0 ? 'hurting' : 'stopped';
}
