'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { parseAmount, type MatchType } from '@/core';
import type { PromotionGroup } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { Fault, firstFault, InlineField, SelectField, useValidForm } from '@/ui/form';
import { focusWork } from '@/ui/focus-work';
import { useSeats } from './use-seats';

const NEW = 'new';

function makingSchema(currency: string) {
  return v.pipe(
    v.object({
      ...{ campaign: v.string(), name: v.string(), budget: v.string() },
      // Not `matches`, which a form has of its own.
      seats: v.pipe(v.array(v.string()), v.minLength(1, 'Choose a seat.')),
    }),
    v.forward(
      v.check(({ campaign, name }) => campaign !== NEW || name.trim() !== '', 'A new campaign needs a name.'),
      ['name'],
    ),
    v.forward(
      v.check(
        ({ campaign, budget }) => campaign !== NEW || (parseAmount(budget, currency) ?? 0) > 0,
        'Give the daily budget as an amount above 0.',
      ),
      ['budget'],
    ),
  );
}

type Props = { group: PromotionGroup; missing: readonly MatchType[] };

/** Puts the seats that a group lacks in the tray: ad groups of a campaign that is there, or of a new one. */
export function MakeSeats({ group, missing }: Props) {
  const { query } = useRoutes();
  const { data: lists } = useQuery(query('GET lists'));
  // The form begins with the campaign of the group, once it is known.
  return lists && <MakingForm campaigns={lists.campaigns} group={group} missing={missing} />;
}

type Named = { id: string; name: string };

function MakingForm({ campaigns, group, missing }: Props & { campaigns: readonly Named[] }) {
  const { currency } = useAccount().summary;
  const { make } = useSeats();
  const [isBusy, setBusy] = useState(false);
  const home = Object.values(group.seats).find((seat) => seat !== null)?.campaign ?? group.name;
  const own = campaigns.find(({ name }) => name === home);
  const form = useValidForm(makingSchema(currency), {
    ...{ campaign: own?.id ?? NEW, name: `${group.name} seats`, budget: '', seats: [...missing] },
  });
  const { register, control, watch, formState } = form;
  const chosen = watch('campaign');
  const fault = firstFault(formState.errors);

  const submit = form.handleSubmit(async ({ campaign, name, budget, seats }) => {
    setBusy(true);
    await make(group, {
      matches: missing.filter((match) => seats.includes(match)),
      campaign: campaigns.find(({ id }) => id === campaign)?.name ?? name.trim(),
      budgetMicros: campaign === NEW ? parseAmount(budget, currency)! : null,
    });
    setBusy(false);
    focusWork(); // the form goes with what was missing
  });

  return (
    <form
      aria-label="Make seats"
      className="mt-3 flex flex-col gap-1.5 border-t border-line pt-2 text-table"
      noValidate
      onSubmit={(event) => void submit(event)}
    >
      <p>Make what is missing, as ad groups in</p>
      <p className="flex flex-wrap items-center gap-1.5">
        <SelectField
          label="Campaign of the seats"
          control={control}
          name="campaign"
          options={[
            ...(own ? [{ key: own.id, says: own.name }] : []),
            { key: NEW, says: 'a new campaign' },
            ...campaigns.filter((one) => one !== own).map(({ id, name }) => ({ key: id, says: name })),
          ]}
        />
        {chosen === NEW && (
          <>
            called
            <InlineField label="Name of the campaign" className="w-40" {...register('name')} />
            with
            <InlineField
              label="Daily budget"
              inputMode="decimal"
              className="w-16 text-right"
              {...register('budget')}
            />
            {currency} a day
          </>
        )}
      </p>
      {chosen === NEW && (
        <p className="text-soft">
          A new campaign starts paused, since it has no ads yet: nothing is left to its seats before it runs.
        </p>
      )}
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="sr-only">Seats</legend>
        {missing.map((match) => (
          <label key={match} className="flex items-center">
            <Check value={match} {...register('seats')} /> {group.name} {match}
          </label>
        ))}
      </fieldset>
      {fault && <Fault>{fault}</Fault>}
      <Button type="submit" tone="main" className="self-start" disabled={isBusy}>
        {isBusy ? 'Putting…' : 'Put the seats in the tray'}
      </Button>
    </form>
  );
}
