'use client';

import { memo } from 'react';
import { RANKS, NGRAM_SIZES, type Rank } from '@/contracts/sift';
import type { SiftUrl } from '../sift-url';
import { Ngrams } from './ngrams';
import { Themes } from './themes';
import { WhyAtFault } from './why-at-fault';
import { Check } from '@/ui/check';
import { Explain } from '@/ui/explain';
import { optionsIn, optionsOf, Select } from '@/ui/select';
import { ToggleGroup } from '@/ui/toggle-group';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

const RANK_IN_WORDS: Record<Rank, string> = {
  fault: 'at fault first',
  without: 'by spend without return',
  share: 'by share without return',
  terms: 'by number of terms',
};
const PANELS = [
  { key: 'ngrams', says: 'Runs of words' },
  { key: 'themes', says: 'Themes' },
] as const;

/** The words of the terms: n-grams in rank, or themes. Choosing one narrows the terms. */
export const WordsPanel = memo(function WordsPanel({ url, onChange }: Props) {
  const isNgrams = url.panel === 'ngrams';
  return (
    <section
      aria-label="Words"
      data-beside-table
      className="flex w-[204px] max-[1100px]:w-[168px] shrink-0 flex-col bg-paper text-table"
    >
      <ToggleGroup
        label="Words by"
        look="underlined"
        className="gap-4 border-b border-line px-4 whitespace-nowrap text-soft max-[1100px]:gap-2.5 max-[1100px]:px-3"
        itemClassName="-mb-px py-1.5"
        options={PANELS}
        value={url.panel}
        onChange={(panel) => onChange({ panel })}
      />
      <div className="border-b border-line px-4 py-0.5 text-small text-soft">
        {isNgrams && url.rank !== 'fault' && (
          <div className="flex items-center">
            <ToggleGroup
              label="Runs of how many words"
              look="underlined"
              className="-ml-2 text-table"
              options={optionsOf(NGRAM_SIZES)}
              value={url.n}
              onChange={(n) => onChange({ n })}
            />
            <label className="ml-auto flex min-h-6 items-center gap-1">
              <Check
                checked={url.forms === 'yes'}
                onChange={(e) => onChange({ forms: e.target.checked ? 'yes' : 'no' })}
              />
              forms
            </label>
            <Explain about="forms">All forms of a word (plural, -ing, -ed) count as one.</Explain>
          </div>
        )}
        <span className="flex items-center gap-1">
          <Select
            label="Rank of the words"
            look="quiet"
            className="min-w-0 flex-1"
            options={optionsIn(
              RANKS.filter((rank) => isNgrams || rank === 'fault' || rank === 'without'),
              RANK_IN_WORDS,
            )}
            value={url.rank}
            onChange={(rank) => onChange({ rank })}
          />
          <WhyAtFault />
        </span>
      </div>
      {isNgrams ? <Ngrams url={url} onChange={onChange} /> : <Themes url={url} onChange={onChange} />}
    </section>
  );
});
