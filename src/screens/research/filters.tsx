'use client';

import { useState } from 'react';
import { focusWork } from '@/ui/focus-work';
import { Select } from '@/ui/select';
import type { ResearchUrl } from './research-url';

type Props = { url: ResearchUrl; onChange: (change: Partial<ResearchUrl>) => void };

const field = 'min-h-6 border-b border-dashed border-ink bg-transparent font-semibold text-ink';

/** The filters as a sentence. */
export function Filters({ url, onChange }: Props) {
  return (
    <form
      aria-label="Filters"
      className="flex flex-wrap items-baseline gap-x-1.5 text-soft"
      onSubmit={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && event.target instanceof HTMLInputElement) focusWork();
      }}
    >
      Ideas with
      <Searches key={url.searches} searches={url.searches} onChange={(searches) => onChange({ searches })} />
      searches or more, holding
      <Select
        look="word"
        id="first-filter"
        label="Whether what is typed is left out"
        value={url.holds}
        options={[
          { key: 'none', says: 'none of' },
          { key: 'any', says: 'any of' },
        ]}
        onChange={(holds) => onChange({ holds })}
      />
      <Typed key={url.typed} typed={url.typed} onChange={(typed) => onChange({ typed })} />
    </form>
  );
}

function Searches({ searches, onChange }: { searches: number; onChange: (searches: number) => void }) {
  const [text, setText] = useState(String(searches));
  const take = () => {
    const wanted = Math.min(10_000_000, Math.max(0, Math.round(Number(text)) || 0));
    setText(String(wanted));
    if (wanted !== searches) onChange(wanted);
  };
  return (
    <input
      inputMode="numeric"
      aria-label="Searches a month at least"
      className={`${field} w-12 text-center`}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

function Typed({ typed, onChange }: { typed: string; onChange: (typed: string) => void }) {
  const [text, setText] = useState(typed);
  return (
    <input
      aria-label="Words and runs, parted by commas"
      placeholder="the words typed"
      maxLength={2_000}
      className={`${field} w-32 placeholder:font-semibold placeholder:text-soft`}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => text !== typed && onChange(text)}
      onKeyDown={(event) => event.key === 'Enter' && onChange(text)}
    />
  );
}
