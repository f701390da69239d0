'use client';

import { useMoney, useUnits } from '@/screens/frame/money';
import { useState } from 'react';
import type { HangingsAnswer, ListLine, ListsView } from '@/contracts/lists';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { conversionsOf, formatCount } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { SaveMenu } from '@/ui/table/save-menu';
import { Check } from '@/ui/check';
import { HeldBack } from './held-back';
import type { useHang } from './use-hang';
import { hangingsToMake } from './hangings';
import { useHangings } from './use-hang';
import { counted, listed } from '@/core';
import { ErrorText } from '@/ui/said';

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
        <ErrorText error={error} />
        {!data && !error && <p className="text-soft">Reckoning…</p>}
        {data && <Effect answer={data} hangs={hangs} />}
        {data && data.byCampaign.length > 1 && <ByCampaign answer={data} />}
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

/** What it would do in each campaign; saved and copied as cells, too. */
function ByCampaign({ answer: { byCampaign } }: { answer: HangingsAnswer }) {
  const money = useMoney();
  const units = useUnits();
  return (
    <div className="mt-1.5">
      <div className="flex items-center text-small text-soft">
        in each campaign <span className="ml-auto">terms, cost</span>
        <SaveMenu
          name="what hanging would stop"
          cells={() => ({
            header: ['campaign', 'terms', 'clicks', 'cost', 'conversions', 'hurts'],
            rows: byCampaign.map(({ name, weight, hurts }) => [
              ...[name, weight.terms, weight.clicks, units(weight.costMicros), weight.conversions],
              hurts ? 'yes' : 'no',
            ]),
          })}
        />
      </div>
      <ul className="max-h-40 overflow-y-auto" tabIndex={0} aria-label="What it would stop in each campaign">
        {byCampaign.map(({ campaignId, name, weight, hurts }) => (
          <li key={campaignId} className="flex gap-2 border-b border-line py-0.5">
            <span className="min-w-0 flex-1 truncate" title={name}>
              {hurts && <StateIcon kind="warned" label="hurts there" />} {name}
            </span>
            <span className="shrink-0">{formatCount(weight.terms)}</span>
            <span className="w-16 shrink-0 text-right">{money(weight.costMicros ?? 0)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function WhereItHurts({ answer: { hurt } }: { answer: HangingsAnswer }) {
  return (
    <ul className="mt-1">
      {hurt.first.map(({ campaignId, name, touched, weight }) => (
        <li key={campaignId} className="flex gap-2 border-b border-line py-0.5">
          <span className="min-w-0 flex-1 truncate">{name}</span>
          <span className="shrink-0 text-rust">
            {listed(touched.map(({ severity, count }) => `${count} ${severity}`))}
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
