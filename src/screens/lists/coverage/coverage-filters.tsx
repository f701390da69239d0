'use client';

import type { ListsView } from '@/contracts/lists';
import { Pick } from '../pick';
import type { ListsUrl } from '../lists-url';
import type { Column } from './columns';
import { counted } from '@/core';

type Props = {
  view: ListsView;
  url: ListsUrl;
  shown: readonly Column[];
  onChange: (change: Partial<ListsUrl>) => void;
};

/** What the grid shows, as a sentence. */
export function CoverageFilters({ view: { campaigns }, url, shown, onChange }: Props) {
  const count = shown.reduce((sum, { campaigns: of }) => sum + of.length, 0);
  const distinct = (values: readonly string[]) => [...new Set(values)].sort();
  return (
    <form
      aria-label="Filters"
      className="flex flex-wrap items-baseline gap-x-1.5 border-b border-line px-4 py-1.5 text-table text-soft"
      onSubmit={(e) => e.preventDefault()}
    >
      <Pick
        name="Kind of list"
        value={url.holds}
        options={[
          ['any', 'All lists'],
          ['words', 'Lists of words'],
          ['placements', 'Lists of placements'],
        ]}
        onChange={(holds) => onChange({ holds: holds as ListsUrl['holds'] })}
      />
      on
      <Pick
        name="Status"
        value={url.status}
        options={[['', 'all'], ...distinct(campaigns.map((c) => c.status)).map((s) => [s, s] as const)]}
        onChange={(status) => onChange({ status })}
      />
      <Pick
        name="Channel"
        value={url.channel}
        options={[
          ['', 'channels'],
          ...distinct(campaigns.map((c) => c.channel ?? '').filter(Boolean)).map((c) => [c, c] as const),
        ]}
        onChange={(channel) => onChange({ channel })}
      />
      campaigns labelled
      <Pick
        name="Label"
        value={url.label}
        options={[
          ['', 'anything'],
          ...distinct(campaigns.flatMap((c) => c.labels)).map((l) => [l, l] as const),
        ]}
        onChange={(label) => onChange({ label })}
      />
      named
      <input
        aria-label="Name holds"
        placeholder="anything"
        className="w-[110px] border-b border-dashed border-ink bg-transparent font-semibold text-ink placeholder:text-ink"
        defaultValue={url.name}
        onChange={(e) => onChange({ name: e.target.value })}
      />
      <span className="ml-auto" data-testid="campaigns-shown">
        {counted(count, 'campaign')}
      </span>
    </form>
  );
}
