'use client';

import { memo } from 'react';
import { RANKS, NGRAM_SIZES, type Rank } from '@/contracts/sift';
import type { SiftUrl } from '../sift-url';
import { Ngrams } from './ngrams';
import { Themes } from './themes';
import { WhyAtFault } from './why-at-fault';
import { Check } from '@/ui/check';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

const RANK_IN_WORDS: Record<Rank, string> = {
  fault: 'at fault first',
  without: 'by spend without return',
  share: 'by share without return',
  terms: 'by number of terms',
};
const tab = (chosen: boolean) =>
  `min-h-6 min-w-6 border-b-2 ${chosen ? 'border-pine font-semibold text-ink' : 'border-transparent'}`;

/** The words of the terms: n-grams in rank, or themes. Choosing one narrows the terms. */
export const WordsPanel = memo(function WordsPanel({ url, onChange }: Props) {
  const isNgrams = url.panel === 'ngrams';
  return (
    <section
      aria-label="Words"
      className="flex w-[204px] max-[1100px]:w-[168px] shrink-0 flex-col bg-paper text-table"
    >
      <div role="group" aria-label="Words by" className="flex gap-4 border-b border-line px-4 text-soft">
        {(['ngrams', 'themes'] as const).map((panel) => (
          <button
            key={panel}
            type="button"
            aria-pressed={url.panel === panel}
            className={`${tab(url.panel === panel)} -mb-px py-1.5`}
            onClick={() => onChange({ panel })}
          >
            {panel === 'ngrams' ? 'Runs of words' : 'Themes'}
          </button>
        ))}
      </div>
      <div className="border-b border-line px-4 py-0.5 text-small text-soft">
        {isNgrams && url.rank !== 'fault' && (
          <div className="flex items-center">
            <div role="group" aria-label="Runs of how many words" className="-ml-2 flex">
              {NGRAM_SIZES.map((n) => (
                <button
                  key={n}
                  type="button"
                  aria-pressed={url.n === n}
                  className={`${tab(url.n === n)} text-table`}
                  onClick={() => onChange({ n })}
                >
                  {n}
                </button>
              ))}
            </div>
            <label
              className="ml-auto flex min-h-6 items-center gap-1"
              title="All forms of a word (plural, -ing, -ed) count as one"
            >
              <Check
                checked={url.forms === 'yes'}
                onChange={(e) => onChange({ forms: e.target.checked ? 'yes' : 'no' })}
              />
              forms
            </label>
          </div>
        )}
        <span className="flex items-center gap-1">
          <select
            aria-label="Rank of the words"
            className="min-h-6 w-full min-w-0 bg-transparent"
            value={url.rank}
            onChange={(e) => onChange({ rank: e.target.value as Rank })}
          >
            {RANKS.filter((rank) => isNgrams || rank === 'fault' || rank === 'without').map((rank) => (
              <option key={rank} value={rank}>
                {RANK_IN_WORDS[rank]}
              </option>
            ))}
          </select>
          <WhyAtFault />
        </span>
      </div>
      {isNgrams ? <Ngrams url={url} onChange={onChange} /> : <Themes url={url} onChange={onChange} />}
    </section>
  );
});
