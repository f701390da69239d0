'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { parseAsString, useQueryState } from 'nuqs';
import { useState } from 'react';
import type { AccountSummary } from '@/contracts/common';
import { MOST_DAYS, sayDays } from '@/contracts/days';
import { PopoverPanel } from '@/ui/explain';
import { focusWork } from '@/ui/focus-work';
import { formatDays } from '@/ui/format';
import { RangeForm } from '@/ui/range-form';
import { ToggleGroup } from '@/ui/toggle-group';
import { useDays } from './data/days';
import { BESIDE, besideOf, rangeText, windowOf } from './days-of';

const LENGTHS = [7, 14, 30, 60, 90];
const NOTHING = 'nothing';
const BESIDE_OPTIONS = Object.entries(BESIDE).map(([key, says]) => ({ key, says }));

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
  const choose = (length: string) => setDays(length === String(own) ? null : length);
  const known = {
    ...{ first: summary.dataDays?.from, last: summary.dataDays?.to, takes: 'Take' },
    faultOf: (range: { from: string; to: string }) =>
      rangeText(range.from, range.to) === undefined
        ? `At most ${MOST_DAYS} days can be looked at.`
        : undefined,
  };
  return (
    <Popover.Root open={isOpen} onOpenChange={setIsOpen}>
      <Popover.Trigger aria-label="Days that are looked at" className="whitespace-nowrap text-soft">
        Days{' '}
        <b className="inline-flex items-center gap-px border-b border-dashed border-soft font-semibold text-ink">
          {formatDays(window)} <ChevronDown size={10} aria-hidden className="shrink-0 text-soft" />
        </b>
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
        <p className="text-small text-soft">So many days, up to the newest that the lag lets through</p>
        <ToggleGroup
          label="So many days"
          className="mt-1 flex-wrap gap-1"
          options={[...new Set([...LENGTHS, own])]
            .sort((a, b) => a - b)
            .map((n) => ({ key: String(n), says: `${n} days` }))}
          value={days ?? String(own)}
          onChange={choose}
        />
        <p className="mt-2 text-small text-soft">From one day to another</p>
        <RangeForm
          key={sayDays(window)}
          names={['From one day to another: first', 'From one day to another: last']}
          range={{ from: window.from, to: window.to }}
          {...known}
          onTake={({ from, to }) => setDays(sayDays({ from, to }))}
        />
        <div className="mt-2 border-t border-line pt-1.5">
          <p className="text-small text-soft">Beside them, with the difference</p>
          <ToggleGroup
            label="Beside"
            className="mt-1 flex-wrap gap-1"
            options={[{ key: NOTHING, says: 'nothing' }, ...BESIDE_OPTIONS]}
            value={beside ?? NOTHING}
            onChange={(key) => setBeside(key === NOTHING ? null : key)}
          />
        </div>
        <p className="mt-2 text-small text-soft">or other days</p>
        <RangeForm
          key={other ? `beside ${sayDays(other)}` : 'beside'}
          names={['or other days: first', 'or other days: last']}
          range={{ from: other?.from ?? '', to: other?.to ?? '' }}
          {...known}
          onTake={({ from, to }) => setBeside(sayDays({ from, to }))}
        />
      </PopoverPanel>
    </Popover.Root>
  );
}
