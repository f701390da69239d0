'use client';

import type { ListsView } from '@/contracts/lists';
import { optionsOf, Select } from '@/ui/select';
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
      <Select
        look="word"
        label="Kind of list"
        value={url.holds}
        options={[
          { key: 'any', says: 'All lists' },
          { key: 'words', says: 'Lists of words' },
          { key: 'placements', says: 'Lists of placements' },
        ]}
        onChange={(holds) => onChange({ holds })}
      />
      on
      <Select
        look="word"
        label="Status"
        value={url.status}
        options={[{ key: '', says: 'all' }, ...optionsOf(distinct(campaigns.map((c) => c.status)))]}
        onChange={(status) => onChange({ status })}
      />
      <Select
        look="word"
        label="Channel"
        value={url.channel}
        options={[
          { key: '', says: 'channels' },
          ...optionsOf(distinct(campaigns.map((c) => c.channel ?? '').filter(Boolean))),
        ]}
        onChange={(channel) => onChange({ channel })}
      />
      campaigns labelled
      <Select
        look="word"
        label="Label"
        value={url.label}
        options={[{ key: '', says: 'anything' }, ...optionsOf(distinct(campaigns.flatMap((c) => c.labels)))]}
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
