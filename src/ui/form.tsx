'use client';

import { valibotResolver } from '@hookform/resolvers/valibot';
import { useId, type ComponentProps, type ReactNode } from 'react';
import { useForm, type DefaultValues, type FieldValues } from 'react-hook-form';
import type * as v from 'valibot';

/**
 * A form that is held against a schema: what is wrong stands beside its field, and what was typed stays. What is handed on
 * are the texts as they were typed; the server reads them by the same schema.
 */
export function useValidForm<Values extends FieldValues>(
  schema: v.GenericSchema<Values, unknown>,
  defaultValues: DefaultValues<Values>,
) {
  return useForm<Values>({
    resolver: valibotResolver(schema as v.GenericSchema<Values, Values>, undefined, { raw: true }),
    defaultValues,
    mode: 'onSubmit',
    reValidateMode: 'onChange',
  });
}

export const FIELD =
  'min-w-0 rounded border border-line bg-sheet px-2 py-1 aria-invalid:border-rust disabled:opacity-60';

type FieldProps = ComponentProps<'input'> & {
  label: string;
  /** the label is read, not shown: the field says itself what it is for */
  isLabelHidden?: boolean;
  /** what is wrong with what was typed */
  fault: string | undefined;
};

/** A field for a line of text, with its label, and with what is wrong below it. */
export function TextField({ label, isLabelHidden, fault, className = '', ...input }: FieldProps) {
  const id = useId();
  return (
    <label className={`block ${className}`}>
      <span className={isLabelHidden ? 'sr-only' : ''}>{label}</span>
      <input
        {...input}
        aria-invalid={fault !== undefined || undefined}
        aria-describedby={fault === undefined ? undefined : id}
        className={`${FIELD} mt-0.5 w-full`}
      />
      {fault !== undefined && <Fault id={id}>{fault}</Fault>}
    </label>
  );
}

/** What is wrong, in the words of who found it. */
export function Fault({ id, children }: { id?: string; children: ReactNode }) {
  return (
    <span id={id} role="alert" className="block text-small text-rust">
      {children}
    </span>
  );
}
