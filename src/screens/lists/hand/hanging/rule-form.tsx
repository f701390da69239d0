'use client';

import { useState } from 'react';
import type { ListLine, ListsView } from '@/contracts/lists';
import { isRuled, sayRule, type HangRule, counted } from '@/core';
import { useRefresh } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { withStatus } from '@/ui/format';
import { Pick } from '../../pick';
import { HeldBack } from './held-back';
import { hangingsToMake } from './hangings';
import { useHang, useHangings } from './use-hang';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = { view: ListsView; list: ListLine; onDone: () => void };

const some = (value: string) => (value.trim() === '' ? [] : [value.trim()]);

/** Hangs a list on all campaigns of a kind, now and (kept as a rule) whenever such a campaign appears. */
export function RuleForm({ view, list, onDone }: Props) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const hang = useHang();
  const [status, setStatus] = useState('live');
  const [channel, setChannel] = useState('');
  const [label, setLabel] = useState('');
  const [holds, setHolds] = useState('');
  const [lacks, setLacks] = useState('');
  const [keeps, setKeeps] = useState(true);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const rule: HangRule = {
    ...{ statuses: some(status), channels: some(channel), labels: some(label) },
    ...{ nameHolds: some(holds), nameLacks: some(lacks) },
  };
  const ruled = view.campaigns.filter((c) => isRuled(rule, c));
  const chosen = ruled.filter((c) => !left.has(c.id));
  const ids = chosen.map((c) => c.id);
  const { data } = useHangings(ids.length > 0 ? { lists: [list.id], campaigns: ids, hang: true } : null);
  const hurtAt = new Map(data?.hurt.first.map((h) => [h.campaignId, h]));
  const toHang = hangingsToMake(view, [list], ids, true);
  const distinct = (values: readonly string[]) => [...new Set(values.filter(Boolean))].sort();
  const field = 'min-w-0 flex-1 border-b border-dashed border-ink bg-transparent text-ink';

  async function put() {
    try {
      if (keeps) {
        const { id } = await call('POST lists/rules', { body: { list: list.id, rule } });
        for (const c of ruled)
          if (left.has(c.id))
            await call('POST lists/rules/[rule]', {
              ...{ params: { rule: id }, body: { campaign: c.id, isOut: true } },
            });
      }
      if (toHang.length > 0) await hang.turn(toHang, true);
      else await refresh();
      onDone();
    } catch (error) {
      sayFailure(error);
    }
  }

  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table" data-testid="rule">
      <p className="flex flex-wrap items-baseline gap-1.5 text-soft">
        Hang on all
        <Pick
          name="Status of campaigns"
          value={status}
          options={[
            ['', 'live or not'],
            ...distinct(view.campaigns.map((c) => c.status)).map((s) => [s, s] as const),
          ]}
          onChange={setStatus}
        />
        <Pick
          name="Channel of campaigns"
          value={channel}
          options={[
            ['', 'any channel'],
            ...distinct(view.campaigns.map((c) => c.channel ?? '')).map((c) => [c, c] as const),
          ]}
          onChange={setChannel}
        />
        campaigns labelled
        <Pick
          name="Label of campaigns"
          value={label}
          options={[
            ['', 'anything'],
            ...distinct(view.campaigns.flatMap((c) => c.labels)).map((l) => [l, l] as const),
          ]}
          onChange={setLabel}
        />
      </p>
      <label className="flex items-baseline gap-1.5 text-soft">
        whose name holds
        <input className={field} value={holds} onChange={(e) => setHolds(e.target.value)} />
      </label>
      <label className="flex items-baseline gap-1.5 text-soft">
        and does not hold
        <input className={field} value={lacks} onChange={(e) => setLacks(e.target.value)} />
      </label>
      <p aria-live="polite">
        {counted(chosen.length, 'campaign')}; on {counted(toHang.length, 'campaign')} it does not hang yet.
        {data && data.weight.terms > 0 && ` Hung there it would stop ${counted(data.weight.terms, 'term')}.`}
      </p>
      <ul className="max-h-44 overflow-y-auto border-y border-line" tabIndex={0}>
        {ruled.map((c) => {
          const hurt = hurtAt.get(c.id);
          return (
            <li key={c.id}>
              <label className="flex items-center gap-1">
                <Check
                  checked={!left.has(c.id)}
                  onChange={() => {
                    const next = new Set(left);
                    if (!next.delete(c.id)) next.add(c.id);
                    setLeft(next);
                  }}
                />
                <span className="min-w-0 flex-1 truncate">{withStatus(c)}</span>
                {hurt && (
                  <span className="shrink-0 text-small text-rust">
                    {hurt.touched.map(({ severity, count }) => `${count} ${severity}`).join(', ')}
                  </span>
                )}
              </label>
            </li>
          );
        })}
      </ul>
      <label className="flex items-center gap-1">
        <Check checked={keeps} onChange={(e) => setKeeps(e.target.checked)} />
        keep as a rule: {sayRule(rule)}
      </label>
      {hang.held && (
        <HeldBack
          said={hang.held.said}
          count={hang.held.count}
          onForce={hang.held.retry}
          onLeave={hang.leave}
        />
      )}
      <div className="flex gap-2">
        <Button tone="main" disabled={toHang.length === 0 && !keeps} onClick={() => void put()}>
          Put in the tray
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </div>
  );
}
