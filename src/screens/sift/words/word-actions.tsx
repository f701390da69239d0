'use client';

import type { WordLine } from '@/contracts/sift';
import { Explain } from '@/ui/explain';
import { useVerdict } from '../hand/use-verdict';
import { useWordTag } from './use-word-tag';

const SAID_OF_WORDS =
  'Stop leads to its terms: the word is chosen there, and In hand says what stopping it would do. Keep: nothing may stop it as a query from now on. Neutral: it is never shown among the words of this account again. Location: it names a location.';
const button = 'min-h-6 rounded border border-line bg-sheet px-1.5 hover:border-soft';

/** What can be said of the chosen n-gram: stop it (in hand, in the terms that hold it), keep it, or mark it. */
export function WordActions({ line, onDone }: { line: WordLine; onDone: () => void }) {
  const setVerdict = useVerdict();
  const tag = useWordTag();
  const raw = line.ngram;
  return (
    <div
      role="group"
      aria-label={`“${raw}”`}
      className="flex h-[58px] flex-wrap content-center items-center gap-1 bg-straw px-4 text-small"
    >
      <button type="button" className={button} onClick={() => document.getElementById('terms')?.focus()}>
        Stop…
      </button>
      <button
        type="button"
        className={button}
        onClick={() => void setVerdict({ id: 0, raw }, { is: line.isKept ? 'open' : 'kept' })}
      >
        {line.isKept ? 'Let go' : 'Keep'}
      </button>
      <button type="button" className={button} onClick={() => void tag(raw, 'neutral').then(onDone)}>
        Neutral
      </button>
      <button type="button" className={button} onClick={() => void tag(raw, 'location')}>
        Location
      </button>
      <Explain about="what can be said of a word" className="min-w-6">
        {SAID_OF_WORDS}
      </Explain>
    </div>
  );
}
