'use client';

import { useState } from 'react';
import type { ResearchUrl } from '../research-url';

type Props = { url: ResearchUrl; onChange: (change: Partial<ResearchUrl>) => void };

/** How what is in no group yet is grouped. */
export function GroupSettings({ url, onChange }: Props) {
  return (
    <form
      aria-label="How to group"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table text-soft"
      onSubmit={(event) => event.preventDefault()}
    >
      <Fineness key={url.fine} fine={url.fine} onChange={(fine) => onChange({ fine })} />
      <Whole
        {...{ label: 'Ideas of a group at least', says: 'of', after: 'ideas or more' }}
        {...{ value: url.smallest, least: 1, most: 1_000 }}
        onChange={(smallest) => onChange({ smallest })}
      />
      <Whole
        {...{ label: 'Words that they share at most', says: 'that share up to', after: 'words' }}
        {...{ value: url.words, least: 1, most: 4 }}
        onChange={(words) => onChange({ words })}
      />
      <Whole
        {...{ label: 'Proposed groups at most', says: 'at most', after: 'of them' }}
        {...{ value: url.groups, least: 1, most: 500 }}
        onChange={(groups) => onChange({ groups })}
      />
    </form>
  );
}

/** Coarser or finer by one slider; the groups follow when it is let go. */
function Fineness({ fine, onChange }: { fine: number; onChange: (fine: number) => void }) {
  const [at, setAt] = useState(fine);
  const take = () => at !== fine && onChange(at);
  return (
    <label className="flex items-center gap-1.5">
      Groups: wide
      <input
        type="range"
        min={0}
        max={100}
        step={5}
        value={at}
        aria-label="How narrow the groups are"
        className="w-28 accent-(--pine)"
        onChange={(event) => setAt(Number(event.target.value))}
        onPointerUp={take}
        onKeyUp={take}
        onBlur={take}
      />
      narrow,
    </label>
  );
}

type WholeProps = {
  label: string;
  says: string;
  after: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
};

function Whole({ value, ...props }: WholeProps) {
  return <WholeField key={value} value={value} {...props} />;
}

function WholeField({ label, says, after, value, least, most, onChange }: WholeProps) {
  const [text, setText] = useState(String(value));
  const take = () => {
    const wanted = Math.min(most, Math.max(least, Math.round(Number(text)) || value));
    setText(String(wanted));
    if (wanted !== value) onChange(wanted);
  };
  return (
    <label className="flex items-center gap-1">
      {says}
      <input
        inputMode="numeric"
        aria-label={label}
        className="w-10 border-b border-dashed border-ink bg-transparent text-center font-semibold text-ink"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {after}
    </label>
  );
}
