import type { FormEvent, ReactNode } from 'react';
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { Button } from './button';
import { Fault } from './form';

type Props = {
  label: string;
  /** what the button says */
  verb: string;
  isMain?: boolean;
  isBusy: boolean;
  /** what is wrong with the whole, below the fields */
  fault?: string | null | undefined;
  onSubmit: (event: FormEvent) => unknown;
  className?: string;
  children: ReactNode;
};

/** A form whose fields stand below each other, with one button. */
export function ColumnForm({
  label,
  verb,
  isMain,
  isBusy,
  fault,
  onSubmit,
  className = '',
  children,
}: Props) {
  return (
    <form
      className={`flex flex-col gap-3 ${className}`}
      noValidate
      aria-label={label}
      onSubmit={(event) => void onSubmit(event)}
    >
      {children}
      {fault && <Fault>{fault}</Fault>}
      <Button type="submit" tone={isMain ? 'main' : 'plain'} disabled={isBusy} className="self-start">
        {verb}
      </Button>
    </form>
  );
}

/**
 * Sends what a form holds, once it is right. What throws is said at a field, or of the whole.
 * @param again the field that is in hand again then
 */
export function sendingForm<Values extends FieldValues>(
  form: UseFormReturn<Values>,
  send: (values: Values) => Promise<void>,
  { at = 'root', again }: { at?: Path<Values> | 'root'; again?: Path<Values> } = {},
) {
  return form.handleSubmit(async (values) => {
    try {
      await send(values);
    } catch (error) {
      form.setError(at, { message: error instanceof Error ? error.message : 'It did not work.' });
      if (again) form.setFocus(again, { shouldSelect: true });
    }
  });
}
