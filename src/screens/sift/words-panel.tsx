'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { RUN_SIZES, type WordLine, type WordsAnswer } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import { ask } from '@/ui/ask';
import { formatConversions, formatCount, formatMoney } from '@/ui/format';
import { toSearch, type SiftUrl } from './sift-url';

const ROW = 38;
type Props = {
  url: SiftUrl;
  onChoose: (ngram: string) => void;
  onSize: (n: (typeof RUN_SIZES)[number]) => void;
};

/** Runs of words ranked by spend without return. Choosing one narrows the terms. */
export function WordsPanel({ url, onChoose, onSize }: Props) {
  const { api, summary } = useAccount();
  const search = toSearch({ ...url, holding: '', sort: 'without', direction: 'desc' }, { n: url.n });
  const { data, error } = useQuery({
    queryKey: ['words', summary.slug, search],
    queryFn: () => ask<WordsAnswer>(api(`sift/words?${search}`)),
    placeholderData: keepPreviousData,
  });
  const scroller = useRef<HTMLDivElement>(null);
  const lines = data?.lines ?? [];
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const most = Math.max(1, ...lines.map((l) => l.costMicros));
  return (
    <section aria-label="Words" className="flex w-[204px] shrink-0 flex-col bg-paper text-[13px]">
      <div
        role="group"
        aria-label="Runs of how many words"
        className="flex items-center gap-1 border-b border-line px-4 py-2 text-soft"
      >
        <span className="mr-1 whitespace-nowrap">Runs of</span>
        {RUN_SIZES.map((n) => (
          <button
            key={n}
            type="button"
            aria-pressed={url.n === n}
            className={`min-h-6 min-w-[22px] border-b-2 ${url.n === n ? 'border-pine font-semibold text-ink' : 'border-transparent'}`}
            onClick={() => onSize(n)}
          >
            {n}
          </button>
        ))}
      </div>
      <div className="flex justify-between border-b border-line px-4 py-1 text-[12px] text-soft">
        <span>words, terms</span>
        <span>cost, conv.</span>
      </div>
      {error && <p className="p-3 text-rust">{error.message}</p>}
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-y-auto"
        tabIndex={0}
        role="group"
        aria-label="Runs of words"
      >
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => (
            <WordRow
              key={lines[item.index]!.ngram}
              line={lines[item.index]!}
              most={most}
              top={item.start}
              chosen={url.holding === lines[item.index]!.ngram}
              onChoose={onChoose}
            />
          ))}
        </div>
      </div>
    </section>
  );
}

function WordRow({
  line,
  most,
  top,
  chosen,
  onChoose,
}: {
  line: WordLine;
  most: number;
  top: number;
  chosen: boolean;
  onChoose: (n: string) => void;
}) {
  const without = (line.withoutReturnMicros / most) * 100;
  const returned = ((line.costMicros - line.withoutReturnMicros) / most) * 100;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      className={`absolute inset-x-0 block border-b border-line px-4 text-left ${chosen ? 'bg-straw' : 'hover:bg-raised'}`}
      style={{ top, height: ROW }}
      onClick={() => onChoose(chosen ? '' : line.ngram)}
    >
      <span className="flex items-baseline gap-1.5">
        <span className="truncate font-semibold">{line.ngram}</span>
        <span className="text-[12px] text-soft">{formatCount(line.terms)}</span>
        <span className="ml-auto">{formatMoney(line.costMicros)}</span>
        <span
          className={`w-7 text-right ${(line.conversions ?? 0) > 0 ? 'font-semibold text-moss' : 'text-soft'}`}
        >
          {formatConversions(line.conversions)}
        </span>
      </span>
      <span className="mt-0.5 flex h-[3px]" aria-hidden>
        <span className="bg-timber" style={{ width: `${without}%` }} />
        <span className="bg-moss" style={{ width: `${returned}%` }} />
      </span>
    </button>
  );
}
