'use client';

import { useState } from 'react';
import * as v from 'valibot';
import type { SavedViewLine } from '@/contracts/decisions';

import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { TextField, useValidForm } from '@/ui/form';
import { formatDay } from '@/ui/format';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { useRoutes } from '@/screens/frame/data/routes';

const NameSchema = v.object({ name: v.pipe(v.string(), v.trim(), v.minLength(1, 'Give it a name.')) });

type Props = { search: string; views: readonly SavedViewLine[]; onClose: () => void };

/** Saves the filters under a name, for everybody on the account; removes saved ones. */
export function SaveView({ search, views, onClose }: Props) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const undoable = useUndoable();
  const { register, handleSubmit, watch, formState } = useValidForm(NameSchema, { name: '' });
  const name = watch('name');
  const [trouble, setTrouble] = useState<string | null>(null);
  const there = views.find((view) => view.name === name.trim());

  const put = (view: { name: string; search: string; replaces: string | null }) =>
    call('POST views', { body: view });
  const drop = (name: string) => call('DELETE views', { query: { name } });

  async function run(work: () => Promise<unknown>, said: string, undo: () => Promise<unknown>) {
    try {
      await doing(work());
      await undoable(said, undo);
      setTrouble(null);
      return true;
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : 'It did not work. Nothing was saved.');
      await refresh();
      return false;
    }
  }

  async function save() {
    const view = { name: name.trim(), search, replaces: there?.at ?? null };
    const undo = () =>
      there ? drop(view.name).then(() => put({ ...there, replaces: null })) : drop(view.name);
    if (await run(() => put(view), `View ${view.name} saved`, undo)) onClose();
  }

  return (
    <DialogFrame title="Save these filters" width={440} onClose={onClose}>
      <form className="mt-2 flex items-start gap-2" onSubmit={(event) => void handleSubmit(save)(event)}>
        <TextField
          {...{ label: 'Name of the view', placeholder: 'Name', className: 'flex-1' }}
          isLabelHidden
          maxLength={60}
          fault={formState.errors.name?.message}
          {...register('name')}
        />
        <Button type="submit" tone="main" className="mt-0.5">
          {there ? 'Replace it' : 'Save'}
        </Button>
      </form>
      {trouble && (
        <p role="alert" className="mt-1 text-rust">
          {trouble}
        </p>
      )}
      <ul className="mt-3">
        {views.map((view) => (
          <li key={view.name} className="flex min-h-8 items-center gap-2 border-t border-line">
            <b>{view.name}</b>
            <span className="text-soft">
              {view.by}, {formatDay(view.at.slice(0, 10))}
            </span>
            <Button
              tone="quiet"
              className="ml-auto"
              aria-label={`Remove the view ${view.name}`}
              onClick={() =>
                void run(
                  () => drop(view.name),
                  `View ${view.name} removed`,
                  () => put({ ...view, replaces: null }),
                )
              }
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <Button className="mt-3" onClick={onClose}>
        Close
      </Button>
    </DialogFrame>
  );
}
