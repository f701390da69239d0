'use client';

import { Popover } from 'radix-ui';
import { parseAsString, useQueryState } from 'nuqs';
import { useState } from 'react';
import type { AccountSummary } from '@/contracts/common';
import { sayDays } from '@/contracts/days';
import { Button } from '@/ui/button';
import { PopoverPanel } from '@/ui/explain';
import { focusWork } from '@/ui/focus-work';
import { formatDays } from '@/ui/format';
import { useDays } from './data/days';
import { BESIDE, besideOf, rangeText, windowOf } from './days-of';

const LENGTHS = [7, 14, 30, 60, 90];

/** The second range, in the URL. */
export function useBeside(): [string | null, (beside: string | null) => void] {
  const [beside, setBeside] = useQueryState('beside', parseAsString);
  return [beside, (next) => void setBeside(next)];
}

/** The days that are looked at, and those beside them: a look-back, or any range. */
export function DaysPicker({ summary }: { summary: AccountSummary }) {
  const [days, setDays] = useDays();
  const [beside, setBeside] = useBeside();
  const [isOpen, setIsOpen] = useState(false);
  const window = windowOf(days, summary);
  if (!window || !summary.window) return null;
  const other = besideOf(beside, window);
  const own = summary.window.days;
  const choose = (length: number) => setDays(length === own ? null : String(length));
  const item = (isChosen: boolean) =>
    `min-h-6 rounded border px-2 ${isChosen ? 'border-pine font-semibold text-pine' : 'border-line'}`;
  return (
    <Popover.Root open={isOpen} onOpenChange={setIsOpen}>
      <Popover.Trigger aria-label="Days that are looked at" className="whitespace-nowrap text-soft">
        Days{' '}
        <b className="border-b border-dashed border-soft font-semibold text-ink">{formatDays(window)} ▾</b>
        {other && (
          <span className="max-[1180px]:hidden">
            {' '}
            beside {formatDays(other, other.to.slice(0, 4) !== window.to.slice(0, 4))}
          </span>
        )}
      </Popover.Trigger>
      <PopoverPanel
        label="Days that are looked at"
        className="w-[330px] max-w-none!"
        onCloseAutoFocus={(event) => {
          event.preventDefault();
          focusWork();
        }}
      >
        <fieldset>
          <legend className="text-small text-soft">
            So many days, up to the newest that the lag lets through
          </legend>
          <div className="mt-1 flex flex-wrap gap-1">
            {[...new Set([...LENGTHS, own])]
              .sort((a, b) => a - b)
              .map((n) => (
                <button
                  key={n}
                  type="button"
                  aria-pressed={days === null ? n === own : days === String(n)}
                  className={item(days === null ? n === own : days === String(n))}
                  onClick={() => choose(n)}
                >
                  {n} days
                </button>
              ))}
          </div>
        </fieldset>
        <RangeForm
          key={sayDays(window)}
          legend="From one day to another"
          first={summary.dataDays?.from}
          last={summary.dataDays?.to}
          from={window.from}
          to={window.to}
          onTake={setDays}
        />
        <fieldset className="mt-2 border-t border-line pt-1.5">
          <legend className="sr-only">Beside</legend>
          <p className="text-small text-soft">Beside them, with the difference</p>
          <div className="mt-1 flex flex-wrap gap-1">
            {[null, 'before', 'year'].map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={beside === one}
                className={item(beside === one)}
                onClick={() => setBeside(one)}
              >
                {one === null ? 'nothing' : BESIDE[one as keyof typeof BESIDE]}
              </button>
            ))}
          </div>
        </fieldset>
        <RangeForm
          key={other ? `beside ${sayDays(other)}` : 'beside'}
          legend="or other days"
          first={summary.dataDays?.from}
          last={summary.dataDays?.to}
          from={other?.from ?? ''}
          to={other?.to ?? ''}
          onTake={setBeside}
        />
      </PopoverPanel>
    </Popover.Root>
  );
}

type RangeProps = {
  legend: string;
  /** the days of which there is data */
  first: string | undefined;
  last: string | undefined;
  from: string;
  to: string;
  onTake: (days: string) => void;
};

function RangeForm({ legend, first, last, onTake, ...given }: RangeProps) {
  const [from, setFrom] = useState(given.from);
  const [to, setTo] = useState(given.to);
  const text = rangeText(from, to);
  const day = (name: string, value: string, set: (day: string) => void) => (
    <input
      type="date"
      aria-label={`${legend}: ${name}`}
      className="rounded border border-line bg-sheet px-1 py-0.5"
      min={first}
      max={last}
      value={value}
      onChange={(e) => set(e.target.value)}
    />
  );
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text !== undefined) onTake(text);
      }}
    >
      <p className="text-small text-soft">{legend}</p>
      <div className="mt-1 flex items-center gap-1">
        {day('first', from, setFrom)} – {day('last', to, setTo)}
        <Button type="submit" disabled={text === undefined}>
          Take
        </Button>
      </div>
      {from !== '' && to !== '' && text === undefined && (
        <p role="alert" className="text-small text-rust">
          The last day must not lie before the first, and at most 366 days can be looked at.
        </p>
      )}
    </form>
  );
}
