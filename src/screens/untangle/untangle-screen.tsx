'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { counted } from '@/core';
import type { ConflictsView as View } from '@/contracts/untangle';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { formatConversions, formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { ConflictsView } from './conflicts/conflicts-view';
import { DuplicatesView } from './duplicates/duplicates-view';
import { useDuplicates } from './duplicates/use-duplicates';
import { MisspeltView } from './needless/misspelt-view';
import { NeedlessView } from './needless/needless-view';
import { OverlapsView } from './overlaps/overlaps-view';
import { useOverlaps } from './overlaps/use-overlap';
import { SHOWN, useUntangleUrl, type Shown } from './untangle-url';

const NAMES: Record<Shown, string> = {
  open: 'Conflicts',
  needless: 'Needless',
  misspelt: 'Misspelt',
  twice: 'Twice',
  several: 'Served by several',
  meant: 'Meant so',
  left: 'Left',
};

/** The knots of an account: what each costs, the ways out with what each would open, and a decision in minutes. */
export function UntangleScreen() {
  const [{ shown, alike }, setUrl] = useUntangleUrl();
  const { query } = useRoutes();
  const [days] = useDays();
  const pile = shown === 'meant' || shown === 'left' ? shown : 'open';
  const {
    data: view,
    error,
    isPlaceholderData,
  } = useQuery({
    ...query('GET untangle', { query: { shown: pile, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const needless = useQuery({ ...query('GET untangle/needless'), placeholderData: keepPreviousData });
  const misspelt = useQuery({
    ...query('GET untangle/misspelt', { query: inDays(days) }),
    placeholderData: keepPreviousData,
  });
  const twice = useDuplicates();
  const several = useOverlaps();
  const counts: Record<Shown, number | undefined> = {
    ...{ open: view?.counts.open, meant: view?.counts.meant, left: view?.counts.left },
    needless: needless.data?.lines.length,
    misspelt: misspelt.data?.lines.length,
    twice: twice.data?.rungs[alike],
    several: several.data?.count,
  };
  const piles = { open: { error }, meant: { error }, left: { error } };
  const failure = { ...piles, needless, misspelt, twice, several }[shown].error;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Untangle</h1>
        {view && (
          <HealthLine
            view={view}
            needless={counts.needless}
            twice={twice.data?.rungs['text and match type']}
          />
        )}
      </header>
      <TabbedView
        label="Show"
        className="px-3"
        tabs={SHOWN.map((value) => ({
          ...{ value, name: NAMES[value] },
          count: counts[value] === undefined ? '' : formatCount(counts[value]),
        }))}
        value={shown}
        onChange={(next) => void setUrl({ shown: next })}
      >
        {failure ? (
          <ErrorText error={failure} isWhole />
        ) : shown === 'needless' ? (
          <NeedlessView view={needless.data} />
        ) : shown === 'misspelt' ? (
          <MisspeltView view={misspelt.data} />
        ) : shown === 'twice' ? (
          <DuplicatesView view={twice.data} isStale={twice.isPlaceholderData} />
        ) : shown === 'several' ? (
          <OverlapsView view={several.data} isStale={several.isPlaceholderData} />
        ) : (
          <ConflictsView name={NAMES[shown]} shown={shown} view={view} isStale={isPlaceholderData} />
        )}
      </TabbedView>
    </div>
  );
}

type Health = { view: View; needless: number | undefined; twice: number | undefined };

/** How it stands, in a sentence. */
function HealthLine({ view: { counts, lost, days }, needless, twice }: Health) {
  return (
    <p className="text-table text-soft">
      {counted(counts.open, 'conflict')}
      {lost.conversions > 0 && (
        <>
          {' '}
          cost about <b className="text-rust">{formatConversions(lost.conversions)} conversions</b> in {days}{' '}
          days
        </>
      )}
      {lost.unknown > 0 && `; of ${formatCount(lost.unknown)} it is not known`}
      {counts.inTray > 0 && `; ${formatCount(counts.inTray)} more are mended by the tray`}
      {needless !== undefined &&
        needless > 0 &&
        `; ${counted(needless, 'negative')} ${needless === 1 ? 'is' : 'are'} needless`}
      {twice !== undefined &&
        twice > 0 &&
        `; ${counted(twice, 'keyword')} ${twice === 1 ? 'stands' : 'stand'} twice`}
      .
    </p>
  );
}
