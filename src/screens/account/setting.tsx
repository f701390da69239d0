'use client';

import type { ReactNode } from 'react';
import { Button } from '@/ui/button';
import { useMay } from '@/screens/frame/account-context';
import { useKeptFocus } from './keep-focus';
import type { SettingForm } from './use-setting-form';

type Props = {
  /** what the setting is called */
  name: string;
  /** what it changes */
  says: ReactNode;
  form: SettingForm;
  /** the sentence, with its fields in place */
  children: ReactNode;
};

/** The id of the heading of a setting, by its name. */
export const settingId = (name: string) => `setting-${name.replaceAll(' ', '-').toLowerCase()}`;

/** A setting as a sentence whose parts are set in place, with what it changes under it. */
export function Setting({ name, says, form, children }: Props) {
  const id = settingId(name);
  const kept = useKeptFocus(id);
  const { may } = useMay('own');
  return (
    <form
      {...kept}
      noValidate
      aria-labelledby={id}
      className="border-b border-line px-4 py-2.5"
      onSubmit={form.submit}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented && form.isChanged) form.leave();
      }}
    >
      <div className="flex items-start gap-4">
        <h2 id={id} className="w-[112px] shrink-0 pt-0.5 font-semibold">
          {name}
        </h2>
        <div className="min-w-0 flex-1">
          <fieldset disabled={!may} className="flex min-h-7 flex-wrap items-center gap-x-1.5 gap-y-1">
            {children}
          </fieldset>
          {form.fault && (
            <p role="alert" className="mt-1 border-l-[3px] border-rust bg-rust/10 px-2 py-1 text-table">
              {form.fault}
            </p>
          )}
          <p className="mt-0.5 text-table text-soft">{says}</p>
        </div>
        {form.isChanged && (
          <div className="flex shrink-0 gap-1.5">
            <Button type="submit" tone="main" disabled={form.isBusy} aria-label={`Set: ${name}`}>
              Set
            </Button>
            <Button onClick={form.leave} aria-label={`Leave as it was: ${name}`}>
              Leave
            </Button>
          </div>
        )}
      </div>
    </form>
  );
}
