'use client';

import * as v from 'valibot';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault, useValidForm } from '@/ui/form';

const PastedSchema = v.object({ text: v.pipe(v.string(), v.regex(/\S/, 'Paste the cells first.')) });

/** Cells from a spreadsheet, with their header; read like any file. */
export function PasteDialog({ onPaste, onClose }: { onPaste: (text: string) => void; onClose: () => void }) {
  const { register, handleSubmit, formState } = useValidForm(PastedSchema, { text: '' });
  return (
    <DialogFrame
      title="Paste cells"
      says={
        'Copy cells in a spreadsheet with their header line, and paste them here. They are read like a file: nothing is stored before you say so.'
      }
      width={720}
      onClose={onClose}
    >
      <form
        noValidate
        onSubmit={(event) =>
          void handleSubmit(({ text }) => {
            onPaste(text);
            onClose();
          })(event)
        }
      >
        <textarea
          autoFocus
          aria-label="Pasted cells"
          className="h-64 w-full rounded border border-line bg-paper p-2 font-mono text-small"
          {...register('text')}
        />
        {formState.errors.text && <Fault>{formState.errors.text.message}</Fault>}
        <div className="mt-1 flex gap-2">
          <Button type="submit" tone="main">
            Read these cells
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </DialogFrame>
  );
}
