'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { CellAnswer } from '@/contracts/screens';
import type { DraftOutcome } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { useTrayActions } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { conversionsOf, formatMoney, plural } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';

/** A list, and (when a cell is chosen) what hanging it there stops or would stop. */
export function CellInHand({ listId, campaignId }: { listId: string; campaignId: string | null }) {
  const { summary, api } = useAccount();
  const { data, error } = useQuery({
    queryKey: ['cell', summary.slug, listId, campaignId],
    queryFn: () =>
      ask<CellAnswer>(
        api(`lists/cell?list=${encodeURIComponent(listId)}${campaignId ? `&campaign=${campaignId}` : ''}`),
      ),
    placeholderData: keepPreviousData,
  });
  if (error) {
    return (
      <InHand>
        <p className="text-[13px] text-rust">{error.message}</p>
      </InHand>
    );
  }
  if (!data) return <InHand>…</InHand>;
  return (
    <InHand title={data.campaignName ? `${data.name} → ${data.campaignName}` : data.name}>
      {data.campaignId !== null && (
        <Cell
          key={`${data.listId} ${data.campaignId} ${data.hangs}`}
          cell={data}
          campaignId={data.campaignId}
        />
      )}
      <Entries cell={data} />
    </InHand>
  );
}

function Cell({ cell, campaignId }: { cell: CellAnswer; campaignId: string }) {
  const { draft } = useTrayActions();
  const [held, setHeld] = useState<Extract<DraftOutcome, { outcome: 'held back' }> | null>(null);
  const [reason, setReason] = useState('');
  const { hangs, weight, touched, protectedTerms, listId } = cell;

  async function turn(forcedBecause?: string) {
    const kind = hangs ? 'take down list' : 'hang list';
    const [outcome] = await draft([{ change: { kind, listId, campaignId }, forcedBecause }]);
    setHeld(outcome?.outcome === 'held back' ? outcome : null);
  }

  return (
    <div className="mt-1 text-[13px]" aria-live="polite" data-testid="cell">
      <p>
        {hangs ? 'Hangs here. Without it these would be open again: ' : 'Does not hang here. It would stop '}
        {plural(weight.terms, 'term')}, {plural(weight.clicks ?? 0, 'click')},{' '}
        {formatMoney(weight.costMicros ?? 0)} spent, {conversionsOf(weight)}.
      </p>
      <Hurts protectedTerms={protectedTerms} touched={touched} />
      {held && (
        <label className="mt-1 block border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {held.said} Reason to force it
          <input
            className="mt-1 w-full rounded border border-line bg-sheet px-1.5"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
      )}
      <Button
        tone={held ? 'danger' : 'main'}
        hotkey={held ? undefined : '↵'}
        className="mt-1.5"
        disabled={held !== null && reason.trim().length < 3}
        onClick={() => void turn(held ? reason.trim() : undefined)}
      >
        {held ? 'Force it, with this reason' : hangs ? 'Take down here' : 'Hang here'}
      </Button>
    </div>
  );
}

function Entries({ cell: { entries, listId } }: { cell: CellAnswer }) {
  const { draft } = useTrayActions();
  const place = { kind: 'list' as const, id: listId };
  return (
    <div className="mt-2 text-[13px]">
      <h3 className="text-[12px] text-soft">{plural(entries.length, 'entry', 'entries')}</h3>
      <ul>
        {entries.slice(0, 200).map((e) => (
          <li
            key={`${e.match} ${e.text} ${e.drafted}`}
            className="flex items-center gap-1.5 border-b border-line py-0.5"
          >
            <span className={`min-w-0 truncate ${e.drafted === 'removed' ? 'line-through' : ''}`}>
              {e.text}
            </span>
            <MatchChip match={e.match} />
            {e.drafted && (
              <span className="text-[12px] text-pine">
                {e.drafted === 'added' ? 'in the tray' : 'goes with the tray'}
              </span>
            )}
            {e.drafted === null && (
              <button
                type="button"
                aria-label={`Let ${e.text} (${e.match}) through again`}
                title="Let through again"
                className="ml-auto flex min-h-6 min-w-6 items-center justify-center text-soft hover:text-ink"
                onClick={() =>
                  void draft([{ change: { kind: 'remove negative', text: e.text, match: e.match, place } }])
                }
              >
                <X size={13} aria-hidden />
              </button>
            )}
          </li>
        ))}
      </ul>
      {entries.length === 0 && (
        <p className="text-soft">Empty. Put words into it from Sift: the key p turns the place.</p>
      )}
      {entries.length > 200 && <p className="text-soft">and {entries.length - 200} more</p>}
    </div>
  );
}
