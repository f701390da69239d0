'use client';

import { listed } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import type { Rank, WordLine } from '@/contracts/sift';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { toFilters, type SiftUrl } from '../sift-url';
import { SureBar } from '../table/meter';
import { NeutralWords } from './neutral-words';
import { OFFERED, sayFault, TOO_LITTLE } from './say-fault';
import { WordActions } from './word-actions';
import { WordsMenu } from './words-menu';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';

const ROW = 38;
const ROW_WITH_ACTIONS = 96;
/** What is held against the chosen word stands below its actions. */
const ROW_WITH_SENTENCE = 158;

/** N-grams in rank. */
export function Ngrams({ url, onChange }: { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void }) {
  const { query } = useRoutes();
  const { data, error, isPlaceholderData } = useQuery({
    ...query('GET sift/words', { query: { ...toFilters(url), n: url.n, rank: url.rank } }),
    placeholderData: keepPreviousData,
    gcTime: 30_000,
  });
  const scroller = useRef<HTMLDivElement>(null);
  const lines = data?.lines ?? [];
  const chosenAt = lines.findIndex((l) => l.ngram === url.holding);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) =>
      i !== chosenAt ? ROW : lines[i]!.fault === null ? ROW_WITH_ACTIONS : ROW_WITH_SENTENCE,
    getItemKey: (i) => `${lines[i]!.ngram} ${i === chosenAt}`,
    overscan: 8,
  });
  const most = Math.max(1, ...lines.map((l) => l.costMicros));
  // One n-gram is reached by Tab, the others by arrows: there may be thousands before the terms.
  const [reached, setReached] = useState(0);
  const goal = useRef(0);
  const at = Math.min(reached, lines.length - 1);
  /** A word at fault is judged as it is written, so its terms are those that hold it so. */
  const choose = (holding: string) =>
    onChange(url.rank === 'fault' ? { holding, forms: holding === '' ? 'yes' : 'no' } : { holding });
  function onKey(event: KeyboardEvent) {
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: lines.length - 1 }[event.key];
    const isHere = event.target === scroller.current || (event.target as HTMLElement).matches('[data-ngram]');
    if (to === undefined || lines.length === 0 || !isHere) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(lines.length - 1, to));
    goal.current = next;
    flushSync(() => {
      setReached(next);
      rows.scrollToIndex(next);
    });
    const row = () => scroller.current?.querySelector<HTMLElement>(`[data-ngram="${next}"]`);
    // A row that is not drawn yet has the focus once the list has scrolled. Until then the list has it, and hears the keys.
    (row() ?? scroller.current)?.focus({ preventScroll: true });
    const focusLate = () =>
      goal.current === next && document.activeElement === scroller.current && row()?.focus();
    requestAnimationFrame(() => requestAnimationFrame(focusLate));
  }
  return (
    <>
      <div className="flex items-center gap-1.5 border-b border-line px-4 text-small text-soft">
        <span>words, terms</span>
        <span className="ml-auto">cost</span>
        <span className="font-semibold text-ink">{FIGURE_OF[url.rank]} ↓</span>
        <WordsMenu lines={lines} />
      </div>
      {data?.since === null && url.rank === 'fault' && (
        <p className="px-4 py-2 text-small text-soft">No report is loaded yet.</p>
      )}
      <ErrorText error={error} isWhole />
      <div
        ref={scroller}
        className={`min-h-0 flex-1 overflow-y-auto ${isPlaceholderData ? 'opacity-60' : ''}`}
        tabIndex={0}
        role="group"
        aria-label="Runs of words"
        onKeyDown={onKey}
      >
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            return (
              <div key={line.ngram} className="absolute inset-x-0" style={{ top: item.start }}>
                <WordRow
                  line={line}
                  most={most}
                  rank={url.rank}
                  chosen={url.holding === line.ngram}
                  since={data?.since ?? null}
                  index={item.index}
                  isReached={item.index === at}
                  onReach={() => setReached(item.index)}
                  onChoose={choose}
                />
                {item.index === chosenAt && (
                  <WordActions line={line} onDone={() => onChange({ holding: '' })} />
                )}
                {item.index === chosenAt && line.fault && (
                  <p className="h-[62px] border-b border-line bg-straw px-4 text-small leading-[15px]">
                    {sayFault(line.fault, data?.since ?? null)}
                  </p>
                )}
              </div>
            );
          })}
        </div>
      </div>
      {data && data.neutral > 0 && <NeutralWords count={data.neutral} />}
    </>
  );
}

type RowProps = {
  line: WordLine;
  most: number;
  rank: Rank;
  chosen: boolean;
  since: string | null;
  index: number;
  isReached: boolean;
  onReach: () => void;
  onChoose: (n: string) => void;
};

function titleOf({ forms, fault }: WordLine, since: string | null): string {
  const said = fault ? sayFault(fault, since) : TOO_LITTLE;
  return forms.length > 0 ? `with ${listed(forms)}. ${said}` : said;
}

function WordRow({ line, most, rank, chosen, since, index, isReached, onReach, onChoose }: RowProps) {
  const formatMoney = useMoney();
  const without = (line.withoutReturnMicros / most) * 100;
  const returned = ((line.costMicros - line.withoutReturnMicros) / most) * 100;
  return (
    <button
      type="button"
      data-ngram={index}
      tabIndex={isReached ? 0 : -1}
      aria-pressed={chosen}
      onFocus={onReach}
      title={titleOf(line, since)}
      className={`block w-full border-b border-line px-4 text-left ${chosen ? 'bg-straw' : 'hover:bg-raised'}`}
      style={{ height: ROW }}
      onClick={() => onChoose(chosen ? '' : line.ngram)}
    >
      <span className="flex items-baseline gap-1.5">
        <span className="truncate font-semibold">
          {line.ngram}
          {line.forms.length > 0 && <span className="text-soft"> …</span>}
        </span>
        {line.isKept && <StateIcon kind="kept" label="kept" />}
        <span className={`text-small ${chosen ? '' : 'text-soft'}`}>{formatCount(line.terms)}</span>
        <span className="ml-auto">{formatMoney(line.costMicros)}</span>
      </span>
      <span className="mt-0.5 flex items-center gap-1.5 text-small leading-4">
        <span className="flex h-[3px] min-w-0 flex-1" aria-hidden>
          <span className="bg-timber" style={{ width: `${without}%` }} />
          <span className="bg-moss" style={{ width: `${returned}%` }} />
        </span>
        {(line.conversions ?? 0) > 0 && (
          <span className="shrink-0 font-semibold text-moss">
            {formatConversions(line.conversions)} conv.
          </span>
        )}
        <span className="w-9 shrink-0">
          {line.fault && (
            <SureBar sure={line.fault.probability} settledFrom={OFFERED} says={sayFault(line.fault, since)} />
          )}
        </span>
        <span className="min-w-8 shrink-0 text-right">{sayFigure(line, rank, formatMoney)}</span>
      </span>
    </button>
  );
}

/** What words are ranked by, as the head of the column says it. */
const FIGURE_OF: Record<Rank, string> = {
  ...{ fault: 'sure', without: 'no return', share: 'no return', terms: 'terms' },
};

function sayFigure(line: WordLine, rank: Rank, money: (micros: number) => string): string {
  switch (rank) {
    case 'fault':
      return line.fault ? formatShare(line.fault.probability) : '–';
    case 'without':
      return money(line.withoutReturnMicros);
    case 'share':
      return line.costMicros > 0 ? formatShare(line.withoutReturnMicros / line.costMicros) : '–';
    case 'terms':
      return formatCount(line.terms);
  }
}
