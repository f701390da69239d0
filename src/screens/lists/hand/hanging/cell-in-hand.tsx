'use client';

import { useMoney } from '@/screens/frame/money';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { CellAnswer, ListLine, ListsView } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { conversionsOf, formatDay } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { EditInHand } from '../../edit/edit-in-hand';
import { HeldBack } from './held-back';
import { RuleOfCell } from './rule-of-cell';
import type { useHang } from './use-hang';
import { hungAfterTray } from './hangings';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { ErrorText } from '@/ui/said';

type Props = { view: ListsView; list: ListLine; campaignId: string; hang: ReturnType<typeof useHang> };

/** A list on one campaign: what it stops or would stop there, and what would mend what it hurts. */
export function CellInHand({ view, list, campaignId, hang }: Props) {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/cell', { query: { list: list.id, campaign: campaignId } }),
    placeholderData: keepPreviousData,
  });
  const [edit, setEdit] = useState<ListEdit | null>(null);
  if (error)
    return (
      <InHand>
        <ErrorText error={error} />
      </InHand>
    );
  if (!data) return <InHand>…</InHand>;
  const title = `${data.list.name} → ${data.campaign.name}`;
  if (edit) {
    return (
      <InHand title={title}>
        <EditInHand edit={edit} onDone={() => setEdit(null)} onLeave={() => setEdit(null)} />
      </InHand>
    );
  }
  const hangs = hungAfterTray(view, list).has(campaignId);
  return (
    <InHand
      title={title}
      actions={
        <Button
          tone="main"
          hotkey="↵"
          disabled={data.by === 'account'}
          onClick={() => void hang.turn([{ listId: list.id, campaignId }], !hangs)}
        >
          {hangs ? 'Take down here' : 'Hang here'}
        </Button>
      }
    >
      <div
        className="mt-1 text-table"
        aria-live="polite"
        data-testid="cell"
        data-cell={`${data.list.id} ${data.campaign.id}`}
      >
        <p>
          {data.by === 'account' && 'Hangs on the whole account, so here too. '}
          {data.by === 'itself' && `Hangs here${data.since ? ` since ${formatDay(data.since, true)}` : ''}. `}
          {data.isSaid && 'That is said to be done; no structure file has shown it yet. '}
          {data.by === null && 'Does not hang here. '}
          {data.by === null ? <What cell={data} /> : <Before cell={data} />}
        </p>
        {data.heed && <p className="text-timber">{data.heed}</p>}
        <Hurts protectedTerms={data.protectedTerms} touched={data.touched} />
        {hang.held && (
          <HeldBack
            said={hang.held.said}
            count={hang.held.count}
            onForce={hang.held.retry}
            onLeave={hang.leave}
          />
        )}
        <RuleOfCell view={view} list={list} campaignId={campaignId} />
        <Faults cell={data} onEdit={setEdit} />
      </div>
    </InHand>
  );
}

/** What its terms did there before it hung: what is stopped is served no more, so that the window says nothing of it. */
function Before({ cell: { list, campaign } }: { cell: CellAnswer }) {
  const formatMoney = useMoney();
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET lists/cell/before', { query: { list: list.id, campaign: campaign.id } }),
    enabled: list.holds === 'words',
  });
  if (list.holds !== 'words' || !data) return 'What it stops is served no more.';
  if (data.known === 0)
    return 'What it stops is served no more; what that cost before is not known, since it hung before the data begins.';
  const part =
    data.unknown > 0
      ? ` What ${counted(data.unknown, 'older entry', 'older entries')} cost is not known.`
      : '';
  return `In as many days before, ${counted(data.terms, 'term')} that it stops had ${counted(data.clicks, 'click')}, ${formatMoney(data.costMicros)} spent, ${conversionsOf(data)}.${part}`;
}

function What({ cell: { weight } }: { cell: CellAnswer }) {
  const formatMoney = useMoney();
  return `It would stop ${counted(weight.terms, 'term')}: ${counted(weight.clicks ?? 0, 'click')}, ${formatMoney(weight.costMicros ?? 0)} spent, ${conversionsOf(weight)}.`;
}

/** The entries that hurt there, and what would mend it. */
function Faults({ cell, onEdit }: { cell: CellAnswer; onEdit: (edit: ListEdit) => void }) {
  const { faults, list, campaign } = cell;
  if (faults.count === 0) return null;
  const entries = faults.first.map(({ entry }) => entry);
  return (
    <div className="mt-2">
      <h3 className="text-small text-soft">{counted(faults.count, 'entry hurts', 'entries hurt')} here</h3>
      <ul>
        {faults.first.slice(0, 8).map(({ entry, keywords, stops }) => (
          <li key={`${entry.match} ${entry.text}`} className="border-b border-line py-1">
            <span className="flex items-center gap-1.5">
              <b className="min-w-0 truncate">{entry.text}</b>
              <MatchChip match={entry.match} />
              <Button
                tone="quiet"
                className="ml-auto"
                aria-label={`Let ${entry.text} (${entry.match}) through again in the whole list`}
                onClick={() => onEdit({ do: 'remove', list: list.id, entries: [entry] })}
              >
                Take out
              </Button>
            </span>
            <span className="text-soft">
              {keywords
                .map(({ severity, first, count }) => `${count} ${severity}: ${first[0]!.text}`)
                .join('; ')}
              . Stops {counted(stops.terms, 'term')} here.
            </span>
          </li>
        ))}
      </ul>
      {cell.by !== 'account' && (
        <p className="mt-1.5">
          <Button
            onClick={() => onEdit({ do: 'rest', list: list.id, campaign: campaign.id, without: entries })}
          >
            Hang the rest here as a list of its own
          </Button>
        </p>
      )}
    </div>
  );
}
