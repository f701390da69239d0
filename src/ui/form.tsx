'use client';

import { valibotResolver } from '@hookform/resolvers/valibot';
import { useId, type ComponentProps, type ReactNode } from 'react';
import {
  useController,
  useForm,
  type Control,
  type DefaultValues,
  type FieldPathByValue,
  type FieldValues,
} from 'react-hook-form';
import type * as v from 'valibot';
import { Select } from './select';

/**
 * A form that is held against a schema: what is wrong stands beside its field, and what was typed stays. What is handed on
 * are the texts as they were typed; the server reads them by the same schema.
 */
export function useValidForm<Values extends FieldValues>(
  schema: v.GenericSchema<Values, unknown>,
  defaultValues: DefaultValues<NoInfer<Values>>,
) {
  return useForm<Values>({
    resolver: valibotResolver(schema as v.GenericSchema<Values, Values>, undefined, { raw: true }),
    defaultValues,
    mode: 'onSubmit',
    reValidateMode: 'onChange',
  });
}

export const FIELD =
  'min-w-0 rounded border border-line bg-sheet px-1.5 py-0.5 min-h-6 aria-invalid:border-rust read-only:bg-paper read-only:text-soft disabled:opacity-60';

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

/** A field within a sentence: what is wrong with it stands where the form says so. */
export function InlineField({
  label,
  fault,
  className = '',
  ...input
}: ComponentProps<'input'> & { label: string; fault?: string | undefined }) {
  return (
    <input
      autoComplete="off"
      {...input}
      aria-label={label}
      aria-invalid={fault !== undefined || undefined}
      className={`${FIELD} ${className}`}
    />
  );
}

/** A choice of one out of some, as a field of a form. */
export function SelectField<Values extends FieldValues, Key extends string>({
  control,
  name,
  ...select
}: {
  control: Control<Values>;
  name: FieldPathByValue<Values, Key | null>;
} & Omit<ComponentProps<typeof Select<Key>>, 'value' | 'onChange' | 'ref'>) {
  const {
    field: { ref, value, onChange },
  } = useController({ control, name });
  return <Select {...select} {...{ ref, onChange }} value={value as Key | null} />;
}

/** The first of what is wrong in a form, whichever field it is about. */
export function firstFault(errors: object): string | undefined {
  for (const error of Object.values(errors) as unknown[]) {
    if (typeof error !== 'object' || error === null) continue;
    const fault = 'message' in error && typeof error.message === 'string' ? error.message : firstFault(error);
    if (fault !== undefined) return fault;
  }
  return undefined;
}

/** What is wrong, in the words of who found it. */
export function Fault({ id, children }: { id?: string; children: ReactNode }) {
  return (
    <span id={id} role="alert" className="block text-small text-rust">
      {children}
    </span>
  );
}
