'use client';

import type { FormEvent } from 'react';
import type { DefaultValues, FieldValues, UseFormReturn } from 'react-hook-form';
import * as v from 'valibot';
import { firstFault, useValidForm } from '@/ui/form';
import { useSaving, type Saving } from './use-settings';

/** What a setting shows of its form. */
export type SettingForm = {
  /** whether what stands in the fields differs from what is set */
  isChanged: boolean;
  isBusy: boolean;
  /** what is wrong, as the form or the server found it */
  fault: string | undefined;
  submit: (event: FormEvent) => void;
  /** puts what is set back into the fields */
  leave: () => void;
};

type Work = Parameters<Saving['save']>[0];

/**
 * The form of a setting: held against its schema, sent when it is right, with an undo.
 * @param was what is set, as it is typed
 * @param workOf what is sent, and how it is undone, for what the schema makes of the fields
 */
export function useSettingForm<Values extends FieldValues, Wanted>(
  schema: v.GenericSchema<Values, Wanted>,
  was: Values,
  workOf: (wanted: Wanted) => Work,
): SettingForm & { fields: UseFormReturn<Values> } {
  const fields = useValidForm<Values>(schema, was as DefaultValues<Values>);
  const saving = useSaving();
  const { isDirty, errors } = fields.formState;
  return {
    fields,
    isChanged: isDirty,
    isBusy: saving.isBusy,
    fault: firstFault(errors) ?? saving.fault ?? undefined,
    submit: (event) =>
      void fields.handleSubmit(async (typed) => {
        if (await saving.save(workOf(v.parse(schema, typed)))) fields.reset();
      })(event),
    leave() {
      fields.reset();
      saving.forget();
    },
  };
}
