'use client';

import type { ReactNode } from 'react';
import * as v from 'valibot';
import { parseAmount, plainAmount } from '@/core';
import { Button } from '@/ui/button';
import { Fault, InlineField, useValidForm } from '@/ui/form';
import { useAccount } from './account-context';

const bidSchema = (currency: string, wasMicros: number | null) =>
  v.object({
    bid: v.pipe(
      v.string(),
      v.check((text) => (parseAmount(text, currency) ?? 0) > 0, 'Give the bid as an amount above 0.'),
      v.check((text) => parseAmount(text, currency) !== wasMicros, 'That is the bid already.'),
    ),
  });

type Props = {
  label: string;
  /** what stands in the field at first, micro-units; null: nothing */
  offeredMicros: number | null;
  /** what is no other bid; null: any amount is */
  wasMicros?: number | null;
  onSet: (micros: number) => unknown;
  /** what the button says; it is there once something else is typed, where `isQuiet` */
  says: string;
  isQuiet?: boolean;
  /** stands after it */
  children?: ReactNode;
};

/** A bid that can be set: the most that a click may cost. */
export function BidForm({ label, offeredMicros, wasMicros = null, onSet, says, isQuiet, children }: Props) {
  const { currency } = useAccount().summary;
  const { register, handleSubmit, formState } = useValidForm(bidSchema(currency, wasMicros), {
    bid: offeredMicros === null ? '' : plainAmount(offeredMicros, currency),
  });
  const fault = formState.errors.bid?.message;
  return (
    <form
      noValidate
      className="mt-1.5 flex flex-wrap items-center gap-1.5 text-table"
      onSubmit={(event) => void handleSubmit(({ bid }) => onSet(parseAmount(bid, currency)!))(event)}
    >
      <span aria-hidden>{label}</span>
      <InlineField
        label={label}
        inputMode="decimal"
        className="w-16 text-right"
        fault={fault}
        {...register('bid')}
      />
      {(!isQuiet || formState.isDirty) && <Button type="submit">{says}</Button>}
      {fault && <Fault>{fault}</Fault>}
      {children}
    </form>
  );
}
