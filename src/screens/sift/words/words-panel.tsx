'use client';

import { memo } from 'react';
import { RANKS, RUN_SIZES, type Rank } from '@/contracts/sift';
import type { SiftUrl } from '../sift-url';
import { Runs } from './runs';
import { Themes } from './themes';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

const RANK_IN_WORDS: Record<Rank, string> = {
  without: 'by spend without return',
  share: 'by share without return',
  terms: 'by number of terms',
};
const tab = (chosen: boolean) =>
  `min-h-6 min-w-[20px] border-b-2 ${chosen ? 'border-pine font-semibold text-ink' : 'border-transparent'}`;

/** The words of the terms: runs in rank, or themes. Choosing one narrows the terms. */
export const WordsPanel = memo(function WordsPanel({ url, onChange }: Props) {
  const isRuns = url.panel === 'runs';
  return (
    <section aria-label="Words" className="flex w-[204px] shrink-0 flex-col bg-paper text-[13px]">
      <div className="flex items-center gap-1 border-b border-line px-4 py-1 text-soft">
        <button
          type="button"
          aria-pressed={isRuns}
          className={`${tab(isRuns)} mr-0.5`}
          onClick={() => onChange({ panel: 'runs' })}
        >
          Runs
        </button>
        <div role="group" aria-label="Runs of how many words" className="flex">
          {RUN_SIZES.map((n) => (
            <button
              key={n}
              type="button"
              aria-pressed={isRuns && url.n === n}
              className={tab(isRuns && url.n === n)}
              onClick={() => onChange({ panel: 'runs', n })}
            >
              {n}
            </button>
          ))}
        </div>
        <button
          type="button"
          aria-pressed={!isRuns}
          className={`${tab(!isRuns)} ml-auto`}
          onClick={() => onChange({ panel: 'themes' })}
        >
          Themes
        </button>
      </div>
      {isRuns && (
        <div className="flex flex-col border-b border-line px-4 py-1 text-[12px] text-soft">
          <select
            aria-label="Rank of the words"
            className="min-h-6 bg-transparent"
            value={url.rank}
            onChange={(e) => onChange({ rank: e.target.value as Rank })}
          >
            {RANKS.map((rank) => (
              <option key={rank} value={rank}>
                {RANK_IN_WORDS[rank]}
              </option>
            ))}
          </select>
          <label className="flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              checked={url.forms === 'yes'}
              onChange={(e) => onChange({ forms: e.target.checked ? 'yes' : 'no' })}
            />
            all forms of a word as one
          </label>
        </div>
      )}
      {isRuns ? <Runs url={url} onChange={onChange} /> : <Themes url={url} onChange={onChange} />}
    </section>
  );
});
