'use client';

import { X } from 'lucide-react';
import { useId, useState, type FormEvent } from 'react';
import * as v from 'valibot';
import { PRIORITIES } from '@/core';
import { LanePlanSchema, MOST_TIERS, type LanePlan, type LanesView } from '@/contracts/lanes';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault, FIELD, TextField } from '@/ui/form';
import { Picker } from '@/ui/picker';
import type { LanePlans } from './use-lane-plans';

type Props = {
  /** null: a new one */
  plan: LanePlan | null;
  campaigns: LanesView['campaigns'];
  plans: LanePlans;
  /** what there is to begin with */
  freeName: string;
  onClose: () => void;
  onKept: (key: string) => void;
};

type Tier = { name: string; campaigns: string[]; terms: string };

/** A lane plan as it is written: its tiers in order, their campaigns, and their entry terms, one in a line. */
export function PlanDialog({ plan, campaigns, plans, freeName, onClose, onKept }: Props) {
  const [name, setName] = useState(plan?.name ?? freeName);
  const [tiers, setTiers] = useState<Tier[]>(() => tiersOf(plan ?? { tiers: proposeTiers(campaigns) }));
  const [fault, setFault] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const change = (number: number, part: Partial<Tier>) =>
    setTiers((all) => all.map((tier, i) => (i === number ? { ...tier, ...part } : tier)));
  const taken = new Set(tiers.flatMap((tier) => tier.campaigns));
  const free = campaigns.filter(({ id }) => !taken.has(id));

  async function submit(event: FormEvent) {
    event.preventDefault();
    const read = v.safeParse(LanePlanSchema, { name, tiers: tiers.map(asStored) });
    setFault(read.success ? undefined : read.issues[0].message);
    if (!read.success) return;
    setBusy(true);
    const key = await plans.keep(plan, read.output);
    setBusy(false);
    if (key === undefined) return;
    if (key !== null) onKept(key);
    onClose();
  }

  return (
    <DialogFrame
      title={plan ? `Change ${plan.name}` : 'New lane plan'}
      says="The first tier takes every query. Each later one takes those that hold one of its entry terms."
      width={720}
      onClose={onClose}
    >
      <form noValidate className="flex flex-col gap-3 text-table" onSubmit={(event) => void submit(event)}>
        <TextField
          label="Name of the plan"
          value={name}
          maxLength={80}
          fault={undefined}
          onChange={(event) => setName(event.target.value)}
        />
        {tiers.map((tier, number) => (
          <TierFields
            key={number}
            {...{ tier, number, campaigns, free }}
            mayGo={number > 0 && tiers.length > 2}
            onChange={(part) => change(number, part)}
            onGo={() => setTiers((all) => all.toSpliced(number, 1))}
          />
        ))}
        {fault !== undefined && <Fault>{fault}</Fault>}
        <div className="flex flex-wrap gap-1.5">
          <Button type="submit" tone="main" disabled={isBusy}>
            {isBusy ? 'Keeping…' : 'Keep the plan'}
          </Button>
          <Button
            disabled={tiers.length >= MOST_TIERS}
            onClick={() =>
              setTiers((all) => [...all, { name: `Tier ${all.length + 1}`, campaigns: [], terms: '' }])
            }
          >
            Add a tier
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </DialogFrame>
  );
}

type FieldsProps = {
  tier: Tier;
  number: number;
  campaigns: LanesView['campaigns'];
  free: LanesView['campaigns'];
  mayGo: boolean;
  onChange: (part: Partial<Tier>) => void;
  onGo: () => void;
};

function TierFields({ tier, number, campaigns, free, mayGo, onChange, onGo }: FieldsProps) {
  const id = useId();
  const chosen = tier.campaigns.flatMap((one) => campaigns.find((campaign) => campaign.id === one) ?? []);
  return (
    <fieldset className="flex flex-col gap-1.5 border-t border-line pt-2">
      <legend className="sr-only">Tier {number + 1}</legend>
      <div className="flex flex-wrap items-end gap-2">
        <TextField
          label={`Tier ${number + 1}`}
          value={tier.name}
          maxLength={80}
          fault={undefined}
          className="w-60"
          onChange={(event) => onChange({ name: event.target.value })}
        />
        {mayGo && <Button onClick={onGo}>Leave this tier out</Button>}
      </div>
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        {chosen.map(({ id: one, name, priority }) => (
          <span key={one} className="inline-flex items-center gap-1 rounded border border-line pl-1.5">
            {name}
            {priority !== null && <span className="text-small text-soft">{priority}</span>}
            <button
              type="button"
              aria-label={`Take out ${name}`}
              className="inline-grid size-6 place-items-center text-soft hover:text-pine"
              onClick={() => onChange({ campaigns: tier.campaigns.filter((each) => each !== one) })}
            >
              <X size={12} aria-hidden />
            </button>
          </span>
        ))}
        <Picker
          label={`Add a campaign to tier ${number + 1}`}
          trigger="Add a campaign"
          groups={[{ name: 'Campaigns', items: free.map(({ id: one, name }) => ({ key: one, says: name })) }]}
          chosen={null}
          onPick={(one) => onChange({ campaigns: [...tier.campaigns, one] })}
        />
      </p>
      {number === 0 ? (
        <p className="text-soft">It takes what holds no entry term of the tiers below.</p>
      ) : (
        <label htmlFor={id}>
          Entry terms of tier {number + 1}, one in a line
          <textarea
            id={id}
            rows={3}
            value={tier.terms}
            className={`${FIELD} mt-0.5 w-full`}
            onChange={(event) => onChange({ terms: event.target.value })}
          />
        </label>
      )}
    </fieldset>
  );
}

const tiersOf = ({ tiers }: Pick<LanePlan, 'tiers'>): Tier[] =>
  tiers.map(({ name, campaigns, entryTerms }) => ({ name, campaigns, terms: entryTerms.join('\n') }));

const asStored = ({ name, campaigns, terms }: Tier, number: number): LanePlan['tiers'][number] => ({
  ...{ name, campaigns },
  entryTerms:
    number === 0
      ? []
      : [...new Set(terms.split('\n').map((term) => term.trim()))].filter((term) => term !== ''),
});

/** A tier for each priority that campaigns have; else two empty ones. */
function proposeTiers(campaigns: LanesView['campaigns']): LanePlan['tiers'] {
  const ranked = PRIORITIES.flatMap((priority) => {
    const of = campaigns.filter((one) => one.priority === priority);
    return of.length === 0 ? [] : [{ name: of.length === 1 ? of[0]!.name : priority, of }];
  });
  if (ranked.length >= 2)
    return ranked.map(({ name, of }) => ({ name, campaigns: of.map(({ id }) => id), entryTerms: [] }));
  return ['All queries', 'Tier 2'].map((name) => ({ name, campaigns: [], entryTerms: [] }));
}
