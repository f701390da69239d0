'use client';

import { useState } from 'react';
import { counted, countCombinations } from '@/core';
import { MOST_COMBINATIONS } from '@/contracts/research';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { FIELD } from '@/ui/form';
import { GatherButton, type WayProps } from './way';

const MOST_COLUMNS = 6;
type Typed = { text: string; mayBeLeftOut: boolean };

/** Columns of words, each with each; how many there are is said before they are made. */
export function CombinationsForm({ onGather, isGathering }: WayProps) {
  const [typed, setTyped] = useState<Typed[]>([
    { text: '', mayBeLeftOut: false },
    { text: '', mayBeLeftOut: false },
  ]);
  const [anyOrder, setAnyOrder] = useState(false);
  const columns = typed.map(({ text, mayBeLeftOut }) => ({
    ...{ words: text.split(/[\n,;]/u).map((word) => word.trim()), mayBeLeftOut },
  }));
  const count = countCombinations(columns, { anyOrder });
  const set = (at: number, change: Partial<Typed>) =>
    setTyped(typed.map((one, i) => (i === at ? { ...one, ...change } : one)));
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (count > 0) onGather({ kind: 'combinations', columns, anyOrder });
      }}
    >
      <div className="flex flex-wrap gap-2">
        {typed.map(({ text, mayBeLeftOut }, i) => (
          <div key={i} className="w-[150px]">
            <label>
              Column {i + 1}
              <textarea
                className={`${FIELD} mt-0.5 h-28 w-full`}
                value={text}
                onChange={(event) => set(i, { text: event.target.value })}
              />
            </label>
            <label className="flex items-center gap-1 text-small">
              <Check checked={mayBeLeftOut} onChange={() => set(i, { mayBeLeftOut: !mayBeLeftOut })} />
              may be left out
            </label>
          </div>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <Button
          disabled={typed.length >= MOST_COLUMNS}
          onClick={() => setTyped([...typed, { text: '', mayBeLeftOut: true }])}
        >
          Another column
        </Button>
        <label className="flex items-center gap-1">
          <Check checked={anyOrder} onChange={() => setAnyOrder(!anyOrder)} />
          in any order
        </label>
        <span className={count > MOST_COMBINATIONS ? 'text-rust' : 'text-soft'} role="status">
          {counted(count, 'combination')}
        </span>
      </div>
      <GatherButton isGathering={isGathering} />
    </form>
  );
}
