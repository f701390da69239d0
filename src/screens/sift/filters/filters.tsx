'use client';

import { useQuery } from '@tanstack/react-query';
import { memo, useState } from 'react';
import {
  parseRegion,
  RETURNS,
  SERVED,
  TRAITS,
  type Returns,
  type Served,
  type Trait,
} from '@/contracts/sift';
import { focusWork } from '@/ui/focus-work';
import { withStatus } from '@/ui/format';
import { optionsIn, Select } from '@/ui/select';
import type { SiftUrl } from '../sift-url';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

const RETURNS_IN_WORDS: Record<Returns, string> = {
  any: 'whatever they returned',
  none: 'no conversion',
  over: 'a return over target',
  either: 'no conversion or over target',
};
const SERVED_IN_WORDS: Record<Served, string> = {
  any: 'any keyword',
  loose: 'broad or automatic',
  broad: 'broad',
  automatic: 'automatic',
  phrase: 'phrase',
  exact: 'exact',
};
const TRAITS_IN_WORDS: Record<Trait, string> = {
  any: 'Terms',
  code: 'Product codes',
  location: 'Terms naming a location',
  'not served': 'Terms naming a place not served',
  off: 'Terms plainly off',
  new: 'Terms new since the last pass',
  unseen: 'Terms not looked at',
};
const field = 'border-b border-dashed border-ink bg-transparent font-semibold text-ink';

/** The filters as a sentence. */
export const Filters = memo(function Filters({ url, onChange }: Props) {
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET lists'),
  });
  return (
    <form
      aria-label="Filters"
      className="flex flex-wrap items-baseline gap-x-1.5 gap-y-0.5 text-soft"
      onSubmit={(e) => e.preventDefault()}
      onKeyDown={(e) => {
        // Enter in a field takes what was typed, and goes back to the terms.
        if (e.key === 'Enter' && e.target instanceof HTMLInputElement) focusWork();
      }}
    >
      <Select
        look="word"
        id="first-filter"
        label="Kind of term"
        value={url.trait}
        options={optionsIn(TRAITS, TRAITS_IN_WORDS)}
        onChange={(trait) => onChange({ trait })}
      />
      with
      <ClicksFilter key={url.clicks} clicks={url.clicks} onChange={(clicks) => onChange({ clicks })} />
      <Select
        look="word"
        label="Return"
        value={url.returns}
        options={optionsIn(RETURNS, RETURNS_IN_WORDS)}
        onChange={(returns) => onChange({ returns })}
      />
      served by
      <Select
        look="word"
        label="Served by"
        value={url.served}
        options={optionsIn(SERVED, SERVED_IN_WORDS)}
        onChange={(served) => onChange({ served })}
      />
      in
      <Select
        look="word"
        label="Campaign"
        value={url.campaign}
        options={[
          { key: '', says: 'all campaigns' },
          ...(data?.campaigns ?? []).map((c) => ({ key: c.id, says: withStatus(c) })),
        ]}
        onChange={(campaign) => onChange({ campaign })}
      />
      that hold
      <TextFilter key={url.text} text={url.text} onChange={(text) => onChange({ text })} />
      {url.holding !== '' && (
        <>
          and the words
          <button
            type="button"
            className="min-h-6 rounded bg-straw px-1 font-semibold text-ink"
            onClick={() => onChange({ holding: '' })}
            aria-label={`Holding ${url.holding}: show all words again`}
          >
            {url.holding} ×
          </button>
        </>
      )}
      {url.evidence === 'sure' && (
        <button
          type="button"
          className="min-h-6 rounded bg-straw px-1 font-semibold text-ink"
          onClick={() => onChange({ evidence: 'any' })}
          aria-label="Surely missing the target: show terms of any evidence again"
        >
          surely missing the target ×
        </button>
      )}
      {url.region !== '' && <RegionFilter region={url.region} onClear={() => onChange({ region: '' })} />}
    </form>
  );
});

/** A number of clicks of one's own. */
function ClicksFilter({ clicks, onChange }: { clicks: number; onChange: (clicks: number) => void }) {
  const [typed, setTyped] = useState(String(clicks));
  const take = () => {
    const wanted = Math.min(1_000_000, Math.max(0, Math.round(Number(typed)) || 0));
    setTyped(String(wanted));
    if (wanted !== clicks) onChange(wanted);
  };
  return (
    <span className="whitespace-nowrap">
      <input
        inputMode="numeric"
        aria-label="Clicks at least"
        className={`${field} min-h-6 w-7 text-center`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && take()}
      />{' '}
      clicks or more,
    </span>
  );
}

function RegionFilter({ region, onClear }: { region: string; onClear: () => void }) {
  const parsed = parseRegion(region);
  if (!parsed) return null;
  const [clicks, conversions] = [parsed.clicks.join('–'), parsed.conversions.join('–')];
  return (
    <>
      inside
      <button
        type="button"
        className="min-h-6 rounded bg-straw px-1 font-semibold text-ink"
        aria-label={`Inside ${clicks} clicks and ${conversions} conversions: show all again`}
        onClick={onClear}
      >
        {clicks} clicks, {conversions} conv. ×
      </button>
    </>
  );
}

function TextFilter({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  return (
    <input
      aria-label="Letters that the term holds"
      placeholder="anything"
      maxLength={200}
      className={`${field} min-h-6 w-20 placeholder:font-semibold placeholder:text-soft`}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => typed !== text && onChange(typed)}
      onKeyDown={(e) => e.key === 'Enter' && onChange(typed)}
    />
  );
}
