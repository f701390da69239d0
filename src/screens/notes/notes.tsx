'use client';

import { X } from 'lucide-react';
import * as v from 'valibot';
import type { Note } from '@/contracts/hand';
import { useDecide } from '@/screens/frame/data/decide';
import { sayFailure } from '@/screens/tray/use-tray';
import type { Sent } from '@/ui/outbox';
import { Button } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { formatDay } from '@/ui/format';
import { useUndoable } from '@/screens/frame/data/refresh';

const NoteSchema = v.object({ body: v.pipe(v.string(), v.trim(), v.minLength(1, 'Write the note first.')) });

export type About = { kind: 'term' | 'theme' | 'list'; about: string };

/** Notes on a term, a theme or a list, with who wrote them and when, and the field for another. */
export function Notes({ about, notes }: { about: About; notes: readonly Note[] }) {
  const decide = useDecide();
  const undoable = useUndoable();
  const { register, handleSubmit, reset, formState } = useValidForm(NoteSchema, { body: '' });

  const write = (body: string) =>
    decide('POST notes', { said: `note “${body}”` }, { body: { ...about, body } });
  const remove = ({ id, body }: Pick<Note, 'id' | 'body'>) =>
    decide('DELETE notes/[note]', { said: `remove the note “${body}”` }, { params: { note: id } });
  async function run<T>(work: Promise<Sent<T>>, said: string, undo: (answer: T) => Promise<unknown>) {
    try {
      const sent = await work;
      if (sent.state === 'answered') await undoable(said, () => undo(sent.answer));
    } catch (error) {
      sayFailure(error);
    }
  }
  function add(typed: { body: string }) {
    const body = typed.body.trim();
    reset(); // it waits in this browser where there is no connection
    void run(write(body), 'Note written', ({ noteId }) => remove({ id: noteId, body }));
  }

  return (
    <details className="mt-2 text-table" open={notes.length > 0}>
      <summary className="text-soft">
        {notes.length === 0 ? 'Write a note' : `Notes (${notes.length})`}
      </summary>
      {notes.map((note) => (
        <p key={note.id} className="mt-1 flex items-start gap-1 border-l-2 border-line pl-2">
          <span className="min-w-0 flex-1">
            {note.body}{' '}
            <span className="text-small text-soft">
              {note.by}, {formatDay(note.at.slice(0, 10))}
            </span>
          </span>
          <button
            type="button"
            aria-label={`Remove the note: ${note.body}`}
            className="flex min-h-6 min-w-6 items-center justify-center text-soft hover:text-ink"
            onClick={() => void run(remove(note), 'Note removed', () => write(note.body))}
          >
            <X size={13} aria-hidden />
          </button>
        </p>
      ))}
      <form
        noValidate
        className="mt-1 flex items-start gap-1.5"
        onSubmit={(event) => void handleSubmit(add)(event)}
      >
        <TextField
          isLabelHidden
          label="Note"
          placeholder="@ and a name tells somebody"
          className="flex-1"
          maxLength={2_000}
          fault={formState.errors.body?.message}
          {...register('body')}
        />
        <Button type="submit" className="mt-0.5">
          Write
        </Button>
      </form>
    </details>
  );
}
