'use client';

import { useMoney } from '@/screens/frame/money';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import type { WordLine } from '@/contracts/sift';
import { formatConversions, formatCount } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { toFilters, type SiftUrl } from '../sift-url';
import { NeutralWords } from './neutral-words';
import { WordActions } from './word-actions';
import { useRoutes } from '@/screens/frame/data/routes';

const ROW = 38;
const ROW_WITH_ACTIONS = 68;

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
    estimateSize: (i) => (i === chosenAt ? ROW_WITH_ACTIONS : ROW),
    getItemKey: (i) => `${lines[i]!.ngram} ${i === chosenAt}`,
    overscan: 8,
  });
  const most = Math.max(1, ...lines.map((l) => l.costMicros));
  // One n-gram is reached by Tab, the others by arrows: there may be thousands before the terms.
  const [reached, setReached] = useState(0);
  const goal = useRef(0);
  const at = Math.min(reached, lines.length - 1);
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
      <div className="flex justify-between border-b border-line px-4 py-1 text-[12px] text-soft">
        <span>words, terms</span>
        <span>cost, conv.</span>
      </div>
      {error && <p className="p-3 text-rust">{error.message}</p>}
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
                  chosen={url.holding === line.ngram}
                  index={item.index}
                  isReached={item.index === at}
                  onReach={() => setReached(item.index)}
                  onChoose={(holding) => onChange({ holding })}
                />
                {item.index === chosenAt && (
                  <WordActions line={line} onDone={() => onChange({ holding: '' })} />
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
  chosen: boolean;
  index: number;
  isReached: boolean;
  onReach: () => void;
  onChoose: (n: string) => void;
};

function WordRow({ line, most, chosen, index, isReached, onReach, onChoose }: RowProps) {
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
      title={line.forms.length > 0 ? `with ${line.forms.join(', ')}` : undefined}
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
