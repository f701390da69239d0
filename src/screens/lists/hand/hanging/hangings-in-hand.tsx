'use client';

import { useMoney } from '@/screens/frame/money';
import { useState } from 'react';
import type { HangingsAnswer, ListLine, ListsView } from '@/contracts/lists';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { conversionsOf } from '@/ui/format';
import { Check } from '@/ui/check';
import { HeldBack } from './held-back';
import type { useHang } from './use-hang';
import { hangingsToMake } from './hangings';
import { useHangings } from './use-hang';
import { counted } from '@/core';

type Props = {
  view: ListsView;
  lists: readonly ListLine[];
  campaignIds: readonly string[];
  hang: ReturnType<typeof useHang>;
};

/** Several cells: what hanging all of them would do, and where it would hurt. */
export function HangingsInHand({ view, lists, campaignIds, hang }: Props) {
  const [spares, setSpares] = useState(true);
  const toHang = hangingsToMake(view, lists, campaignIds, true);
  const toTakeDown = hangingsToMake(view, lists, campaignIds, false);
  const hangs = toHang.length > 0;
  const { data, error } = useHangings(
    lists.length * campaignIds.length > 0
      ? { lists: lists.map((l) => l.id), campaigns: [...campaignIds], hang: hangs }
      : null,
  );
  const hurt = new Set(data?.hurt.first.map((h) => h.campaignId));
  const spared = hangs && spares ? toHang.filter(({ campaignId }) => !hurt.has(campaignId ?? '')) : toHang;
  const title = `${lists.length === 1 ? lists[0]!.name : counted(lists.length, 'list')} → ${counted(campaignIds.length, 'campaign')}`;
  return (
    <InHand
      title={title}
      actions={
        <div className="flex flex-wrap gap-2">
          {hangs && (
            <Button
              tone="main"
              hotkey="↵"
              onClick={() => void hang.turn(spared, true)}
              disabled={spared.length === 0}
            >
              Hang on {counted(spared.length, 'place')}
            </Button>
          )}
          {toTakeDown.length > 0 && (
            <Button tone={hangs ? 'plain' : 'main'} onClick={() => void hang.turn(toTakeDown, false)}>
              Take down from {counted(toTakeDown.length, 'place')}
            </Button>
          )}
        </div>
      }
    >
      <div className="mt-1 text-table" aria-live="polite" data-testid="hangings">
        {error && <p className="text-rust">{error.message}</p>}
        {!data && !error && <p className="text-soft">Reckoning…</p>}
        {data && <Effect answer={data} hangs={hangs} />}
        {data && hangs && data.hurt.count > 0 && (
          <>
            <label className="mt-1 flex items-center gap-1">
              <Check checked={spares} onChange={(e) => setSpares(e.target.checked)} />
              only where it hurts nothing
            </label>
            <WhereItHurts answer={data} />
          </>
        )}
        {hang.held && (
          <HeldBack
            said={hang.held.said}
            count={hang.held.count}
            onForce={hang.held.retry}
            onLeave={hang.leave}
          />
        )}
      </div>
    </InHand>
  );
}

function Effect({
  answer: { changes, weight, protectedTerms, touched },
  hangs,
}: {
  answer: HangingsAnswer;
  hangs: boolean;
}) {
  const formatMoney = useMoney();
  if (changes === 0) return <p className="text-soft">Nothing is to change here.</p>;
  return (
    <>
      <p>
        {hangs ? 'Would stop ' : 'Would open again '}
        {counted(weight.terms, 'term')}: {counted(weight.clicks ?? 0, 'click')},{' '}
        {formatMoney(weight.costMicros ?? 0)} spent, {conversionsOf(weight)}.
      </p>
      {hangs && <Hurts protectedTerms={protectedTerms} touched={touched} />}
    </>
  );
}

function WhereItHurts({ answer: { hurt } }: { answer: HangingsAnswer }) {
  return (
    <ul className="mt-1">
      {hurt.first.map(({ campaignId, name, touched, weight }) => (
        <li key={campaignId} className="flex gap-2 border-b border-line py-0.5">
          <span className="min-w-0 flex-1 truncate">{name}</span>
          <span className="shrink-0 text-rust">
            {touched.map(({ severity, count }) => `${count} ${severity}`).join(', ')}
          </span>
          <span className="shrink-0 text-soft">{counted(weight.terms, 'term')}</span>
        </li>
      ))}
      {hurt.count > hurt.first.length && (
        <li className="text-soft">and {hurt.count - hurt.first.length} more campaigns</li>
      )}
    </ul>
  );
}
