'use client';

import { useState } from 'react';
import * as v from 'valibot';
import { PastedSchema } from '@/contracts/research';
import { Fault, FIELD } from '@/ui/form';
import { GatherButton, type WayProps } from './way';

/** Lines as people write them. */
export function PasteForm({ onGather, isGathering }: WayProps) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string>();
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const read = v.safeParse(PastedSchema, text);
        setFault(read.success ? undefined : read.issues[0].message);
        if (read.success && text.trim() !== '') onGather({ kind: 'paste', text });
      }}
    >
      <label>
        Lines: bullets, numbers, quotes and notes are taken off, commas part a line
        <textarea
          className={`${FIELD} mt-0.5 h-48 w-full`}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {fault && <Fault>{fault}</Fault>}
      <GatherButton isGathering={isGathering} />
    </form>
  );
}
