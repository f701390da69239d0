'use client';

import { useState } from 'react';
import * as v from 'valibot';
import type { ListLine, ListsView } from '@/contracts/lists';
import { isRuled, sayRule, type HangRule, counted, listed } from '@/core';
import { useRefresh } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { InlineField, SelectField, useValidForm } from '@/ui/form';
import { withStatus } from '@/ui/format';
import { optionsOf } from '@/ui/select';
import { HeldBack } from './held-back';
import { hangingsToMake } from './hangings';
import { useHang, useHangings } from './use-hang';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = { view: ListsView; list: ListLine; onDone: () => void };

const some = (value: string) => (value.trim() === '' ? [] : [value.trim()]);

const part = v.pipe(v.string(), v.maxLength(80));
const RuleFormSchema = v.object({
  ...{ status: part, channel: part, label: part, holds: part, lacks: part },
  /** whether it is kept as a rule */
  keeps: v.boolean(),
});
const NEW_RULE = { status: 'live', channel: '', label: '', holds: '', lacks: '', keeps: true };

/** Hangs a list on all campaigns of a kind, now and (kept as a rule) whenever such a campaign appears. */
export function RuleForm({ view, list, onDone }: Props) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const hang = useHang();
  const { register, control, watch, handleSubmit } = useValidForm(RuleFormSchema, NEW_RULE);
  const { status, channel, label, holds, lacks, keeps } = watch();
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

  if (hang.held)
    return (
      <HeldBack
        said={hang.held.said}
        count={hang.held.count}
        onForce={hang.held.retry}
        onLeave={hang.leave}
      />
    );
  return (
    <form
      className="mt-1 flex flex-col gap-1.5 text-table"
      data-testid="rule"
      onSubmit={(event) => void handleSubmit(put)(event)}
    >
      <p className="flex flex-wrap items-baseline gap-1.5 text-soft">
        Hang on all
        <SelectField
          look="word"
          label="Status of campaigns"
          control={control}
          name="status"
          options={[
            { key: '', says: 'live or not' },
            ...optionsOf(distinct(view.campaigns.map((c) => c.status))),
          ]}
        />
        <SelectField
          look="word"
          label="Channel of campaigns"
          control={control}
          name="channel"
          options={[
            { key: '', says: 'any channel' },
            ...optionsOf(distinct(view.campaigns.map((c) => c.channel ?? ''))),
          ]}
        />
        campaigns labelled
        <SelectField
          look="word"
          label="Label of campaigns"
          control={control}
          name="label"
          options={[
            { key: '', says: 'anything' },
            ...optionsOf(distinct(view.campaigns.flatMap((c) => c.labels))),
          ]}
        />
      </p>
      <p className="flex items-baseline gap-1.5 text-soft">
        whose name holds
        <InlineField label="whose name holds" className="flex-1" maxLength={80} {...register('holds')} />
      </p>
      <p className="flex items-baseline gap-1.5 text-soft">
        and does not hold
        <InlineField label="and does not hold" className="flex-1" maxLength={80} {...register('lacks')} />
      </p>
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
                    {listed(hurt.touched.map(({ severity, count }) => `${count} ${severity}`))}
                  </span>
                )}
              </label>
            </li>
          );
        })}
      </ul>
      <label className="flex items-center gap-1">
        <Check {...register('keeps')} />
        keep as a rule: {sayRule(rule)}
      </label>
      <div className="flex gap-2">
        <Button tone="main" type="submit" disabled={toHang.length === 0 && !keeps}>
          Put in the tray
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}
