'use client';

import type { ReactNode } from 'react';
import { Button } from '@/ui/button';
import { useKeptFocus } from './keep-focus';
import type { Saving } from './use-settings';

export const FIELD =
  'min-w-0 rounded border border-line bg-sheet px-1.5 py-0.5 aria-invalid:border-rust disabled:opacity-60';

type Props = {
  /** what the setting is called */
  name: string;
  /** what it changes */
  says: ReactNode;
  saving: Saving;
  /** whether what stands in the fields differs from what is set */
  isChanged: boolean;
  onSave: () => void;
  /** puts what is set back into the fields */
  onLeave: () => void;
  /** the sentence, with its fields in place */
  children: ReactNode;
};

/** The id of the heading of a setting, by its name. */
export const settingId = (name: string) => `setting-${name.replaceAll(' ', '-').toLowerCase()}`;

/** A setting as a sentence whose parts are set in place, with what it changes under it. */
export function Setting({ name, says, saving, isChanged, onSave, onLeave, children }: Props) {
  const id = settingId(name);
  const kept = useKeptFocus(id);
  return (
    <form
      {...kept}
      aria-labelledby={id}
      className="border-b border-line px-4 py-2.5"
      onSubmit={(event) => {
        event.preventDefault();
        onSave();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && isChanged) onLeave();
      }}
    >
      <div className="flex items-start gap-4">
        <h2 id={id} className="w-[112px] shrink-0 pt-0.5 font-semibold">
          {name}
        </h2>
        <div className="min-w-0 flex-1">
          <div className="flex min-h-7 flex-wrap items-center gap-x-1.5 gap-y-1">{children}</div>
          {saving.fault && (
            <p role="alert" className="mt-1 border-l-[3px] border-rust bg-rust/10 px-2 py-1 text-table">
              {saving.fault}
            </p>
          )}
          <p className="mt-0.5 text-table text-soft">{says}</p>
        </div>
        {isChanged && (
          <div className="flex shrink-0 gap-1.5">
            <Button type="submit" tone="main" disabled={saving.isBusy} aria-label={`Set: ${name}`}>
              Set
            </Button>
            <Button onClick={onLeave} aria-label={`Leave as it was: ${name}`}>
              Leave
            </Button>
          </div>
        )}
      </div>
    </form>
  );
}
