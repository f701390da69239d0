'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { RETURNS, type Returns } from '@/contracts/sift';
import type { ListsView } from '@/contracts/screens';
import { useAccount } from '@/screens/frame/account-context';
import { ask } from '@/ui/ask';
import type { SiftUrl } from './sift-url';

type Change = Partial<Pick<SiftUrl, 'returns' | 'clicks' | 'campaign' | 'holding' | 'text'>>;
type Props = { url: SiftUrl; onChange: (change: Change) => void };

const RETURNS_IN_WORDS: Record<Returns, string> = {
  any: 'any return',
  none: 'no conversion',
  over: 'no conversion or over target',
};
const CLICKS = [0, 1, 2, 3, 5, 10, 20, 50];
const field = 'border-b border-dashed border-ink bg-transparent font-semibold';

/** The filters as a sentence. */
export function Filters({ url, onChange }: Props) {
  const { api, summary } = useAccount();
  const { data } = useQuery({
    queryKey: ['lists', summary.slug],
    queryFn: () => ask<ListsView>(api('lists')),
  });
  return (
    <form
      aria-label="Filters"
      className="flex flex-wrap items-baseline gap-x-1.5 gap-y-1 text-soft"
      onSubmit={(e) => e.preventDefault()}
    >
      Terms with
      <select
        id="first-filter"
        aria-label="Clicks at least"
        className={`${field} text-ink`}
        value={url.clicks}
        onChange={(e) => onChange({ clicks: Number(e.target.value) })}
      >
        {[...new Set([...CLICKS, url.clicks])]
          .sort((a, b) => a - b)
          .map((n) => (
            <option key={n} value={n}>
              {n === 0 ? 'any clicks' : n === 1 ? 'a click' : `at least ${n} clicks`}
            </option>
          ))}
      </select>
      and
      <select
        aria-label="Return"
        className={`${field} text-ink`}
        value={url.returns}
        onChange={(e) => onChange({ returns: e.target.value as Returns })}
      >
        {RETURNS.map((r) => (
          <option key={r} value={r}>
            {RETURNS_IN_WORDS[r]}
          </option>
        ))}
      </select>
      in
      <select
        aria-label="Campaign"
        className={`${field} max-w-44 text-ink`}
        value={url.campaign}
        onChange={(e) => onChange({ campaign: e.target.value })}
      >
        <option value="">all campaigns</option>
        {data?.campaigns.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name}
          </option>
        ))}
      </select>
      holding
      <TextFilter key={url.text} text={url.text} onChange={(text) => onChange({ text })} />
      {url.holding !== '' && (
        <>
          and the words
          <button
            type="button"
            className="rounded bg-straw px-1 font-semibold text-ink"
            onClick={() => onChange({ holding: '' })}
            aria-label={`Holding ${url.holding}: show all words again`}
          >
            {url.holding} ×
          </button>
        </>
      )}
    </form>
  );
}

function TextFilter({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <input
      aria-label="Letters that the term holds"
      placeholder="any letters"
      className={`${field} w-24 text-ink placeholder:font-semibold placeholder:text-soft`}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => typed !== text && onChange(typed)}
      onKeyDown={(e) => e.key === 'Enter' && onChange(typed)}
    />
  );
}
