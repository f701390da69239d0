'use client';

import { useMoney } from '@/screens/frame/money';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Rank, ThemeLine } from '@/contracts/sift';
import { Explain } from '@/ui/explain';
import { formatCount, formatShare } from '@/ui/format';
import { useRoving } from '@/ui/use-roving';
import { NotesAbout } from '@/screens/notes/notes-about';
import { SureBar } from '../table/meter';
import { ThemesMenu } from './words-menu';
import { OFFERED, sayFault } from './say-fault';
import { toFilters, type SiftUrl } from '../sift-url';
import { useRoutes } from '@/screens/frame/data/routes';
import { EmptyState, ErrorText } from '@/ui/said';

/** Words of a theme that are shown. */
const SHOWN = 8;

/** Words that never brought a return and are asked for together. */
export function Themes({ url, onChange }: { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void }) {
  const formatMoney = useMoney();

  const [opened, setOpened] = useState<string | null>(null);
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET sift/themes', { query: { ...toFilters(url), holding: '' } }),
    placeholderData: keepPreviousData,
    gcTime: 30_000,
  });
  const lines = inRank(data?.lines ?? [], url.rank);
  // Each theme's note, and each of its words that are shown, is one to reach by arrows.
  const firstOf = lines.reduce<number[]>(
    (starts, { words }) => [...starts, starts.at(-1)! + 1 + Math.min(words.length, SHOWN)],
    [0],
  );
  const { list, itemOf: item } = useRoving(firstOf.at(-1)!);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto" role="group" aria-label="Themes" {...list}>
      {lines.length > 0 && (
        <div className="flex items-center border-b border-line px-4 text-small text-soft">
          terms{' '}
          <span className="ml-auto font-semibold text-ink">{url.rank === 'fault' ? 'sure' : 'cost'} ↓</span>
          <ThemesMenu lines={lines} />
        </div>
      )}
      <ErrorText error={error} isWhole />
      {!data && !error && <EmptyState>Finding what goes together …</EmptyState>}
      {data?.lines.length === 0 && (
        <EmptyState>No words here went without any return and stand in two terms.</EmptyState>
      )}
      {lines.map((theme, t) => {
        const name = theme.words.join(' ');
        return (
          <div key={name} className="border-b border-line px-4 py-1.5">
            <p className="flex items-baseline gap-1.5 text-small text-soft">
              {formatCount(theme.terms)} terms
              <button
                type="button"
                {...item(firstOf[t]!)}
                aria-expanded={opened === name}
                className="min-h-6 text-pine hover:underline"
                onClick={() => setOpened(opened === name ? null : name)}
              >
                {theme.notes > 0 ? `${theme.notes} notes` : 'note'}
              </button>
              <span className="ml-auto text-table text-timber">{formatMoney(theme.costMicros)}</span>
            </p>
            <p className="flex flex-wrap gap-x-1">
              {theme.words.slice(0, SHOWN).map((word, w) => (
                <button
                  key={word}
                  type="button"
                  {...item(firstOf[t]! + 1 + w)}
                  aria-pressed={url.holding === word}
                  className={`min-h-6 rounded px-1 font-semibold ${url.holding === word ? 'bg-straw' : 'hover:bg-straw/60'}`}
                  onClick={() => onChange({ holding: url.holding === word ? '' : word })}
                >
                  {word}
                </button>
              ))}
              {theme.words.length > SHOWN && (
                <span className="text-soft">and {theme.words.length - SHOWN} more</span>
              )}
            </p>
            {theme.fault && (
              <span className="flex items-center gap-1.5">
                <span className="flex-1">
                  <SureBar
                    sure={theme.fault.probability}
                    settledFrom={OFFERED}
                    says={sayFault(theme.fault, null)}
                  />
                </span>
                <Explain
                  about={`how ${name} is judged`}
                  trigger={formatShare(theme.fault.probability)}
                  isOutOfTabOrder
                  className="text-small"
                >
                  {sayFault(theme.fault, null)}
                </Explain>
              </span>
            )}
            {opened === name && (
              <NotesAbout about={{ kind: 'theme', about: theme.words.join(' ').slice(0, 400) }} />
            )}
          </div>
        );
      })}
    </div>
  );
}

/** By fault, or as they come: by spend without return. */
function inRank(themes: readonly ThemeLine[], rank: Rank): ThemeLine[] {
  if (rank !== 'fault') return [...themes];
  return themes.toSorted((a, b) => (b.fault?.probability ?? -1) - (a.fault?.probability ?? -1));
}
