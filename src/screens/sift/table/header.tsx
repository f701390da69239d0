'use client';

import { Columns3 } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { Sort } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import type { SiftUrl } from '../sift-url';
import { EXTRAS, ROW_COLUMNS, SERVED_BY, useExtraColumns, type Extra } from './columns';
import { Check } from '@/ui/check';
import { HeadMark } from '@/ui/row-mark';

type Props = {
  url: SiftUrl;
  extras: readonly Extra[];
  /** all, some or none of the rows are marked */
  marked: boolean | 'mixed';
  onMarkAll: () => void;
  onSort: (sort: Sort, direction: 'asc' | 'desc') => void;
};

/** What choosing a header sorts by, in turn. The cost is first sorted by what brought no return. */
function nextSort(name: Sort, url: SiftUrl): [Sort, 'asc' | 'desc'] {
  if (name === 'cost' && url.sort === 'without') return ['cost', 'desc'];
  if (name === 'cost' && url.sort === 'cost')
    return url.direction === 'desc' ? ['cost', 'asc'] : ['without', 'desc'];
  if (name === 'cost') return ['without', 'desc'];
  if (url.sort !== name) return [name, name === 'term' ? 'asc' : 'desc'];
  return [name, url.direction === 'desc' ? 'asc' : 'desc'];
}

export function TermsHeader({ url, extras, marked, onMarkAll, onSort }: Props) {
  const { summary } = useAccount();
  const head = (sort: Sort | undefined, name: string, title?: string, beside?: ReactNode) => {
    const sorted = sort !== undefined && (url.sort === sort || (sort === 'cost' && url.sort === 'without'));
    return (
      <div
        key={name}
        role="columnheader"
        title={title}
        aria-sort={sorted ? (url.direction === 'asc' ? 'ascending' : 'descending') : undefined}
        className={`${beside ? 'flex items-center gap-1.5' : ''} whitespace-nowrap ${sort === 'term' || name === 'campaign' ? '' : 'text-right'}`}
      >
        {sort === undefined ? (
          name
        ) : (
          <button
            type="button"
            className={`${sorted ? 'font-semibold text-ink' : ''} hover:text-ink`}
            onClick={() => onSort(...nextSort(sort, url))}
          >
            {name}
            {sorted && (url.direction === 'asc' ? ' ↑' : ' ↓')}
          </button>
        )}
        {beside}
      </div>
    );
  };
  return (
    <div role="rowgroup" className="sticky top-0 z-10 min-w-(--least) bg-sheet">
      <div
        role="row"
        aria-rowindex={1}
        className={`${ROW_COLUMNS} h-[28px] items-center border-b border-line text-[12px] text-soft`}
      >
        <div role="columnheader">
          <HeadMark marked={marked} onMark={onMarkAll} />
        </div>
        {head('term', 'search term', undefined, <ColumnPicker />)}
        <div role="columnheader" className={`${SERVED_BY} truncate`}>
          served by
        </div>
        {head('clicks', 'clicks')}
        {head('cost', url.sort === 'without' ? 'no return' : 'cost')}
        {head('conversions', 'conv.')}
        {head('evidence', 'sure', 'How sure the figures are that the term misses the target')}
        {head('target', summary.steersBy === 'CPA' ? 'CPA' : 'ACoS')}
        {EXTRAS.filter(({ name }) => extras.includes(name)).map(({ name, sort }) =>
          head(sort, name === 'cpc' ? 'CPC' : name === 'impressions' ? 'impr.' : name),
        )}
      </div>
    </div>
  );
}

/** Columns that can be switched on; the choice is remembered in this browser. */
function ColumnPicker() {
  const [extras, setExtras] = useExtraColumns();
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label="Columns"
        title="Columns"
        className="flex size-6 items-center justify-center hover:text-ink"
      >
        <Columns3 size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          className="z-40 rounded border border-line bg-sheet px-3 py-2 text-[13px] shadow-lg"
        >
          {EXTRAS.map(({ name }) => (
            <label key={name} className="flex min-h-6 items-center gap-2">
              <Check
                checked={extras.includes(name)}
                onChange={(e) =>
                  setExtras(e.target.checked ? [...extras, name] : extras.filter((one) => one !== name))
                }
              />
              {name === 'cpc' ? 'CPC' : name}
            </label>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
