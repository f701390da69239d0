'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { Waiting } from '@/screens/frame/waiting';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { ConflictsView } from './conflicts/conflicts-view';
import { DuplicatesView } from './duplicates/duplicates-view';
import { useDuplicates } from './duplicates/use-duplicates';
import { HealthLine } from './health/health-line';
import { MisspeltView } from './needless/misspelt-view';
import { NeedlessView } from './needless/needless-view';
import { OverlapsView } from './overlaps/overlaps-view';
import { useOverlaps } from './overlaps/use-overlap';
import { SmallerView } from './smaller/smaller-view';
import { pileOf, SHOWN, useUntangleUrl, type Shown } from './untangle-url';

const NAMES: Record<Shown, string> = {
  ...{ conflicts: 'Conflicts', needless: 'Needless', misspelt: 'Misspelt', twice: 'Twice' },
  ...{ several: 'Served by several', smaller: 'Smaller sets' },
};

/** What the screen asks at the same time. */
const ASKED = [
  ...(['GET untangle', 'GET untangle/needless', 'GET untangle/misspelt', 'GET untangle/duplicates'] as const),
  ...(['GET untangle/overlaps', 'GET untangle/smaller', 'POST untangle/look'] as const),
];

/** The knots of an account: what each costs, the ways out with what each would open, and a decision in minutes. */
export function UntangleScreen() {
  const [url, setUrl] = useUntangleUrl();
  const { shown } = url;
  const pile = pileOf(url);
  const { query } = useRoutes();
  const [days] = useDays();
  const conflicts = useQuery({
    ...query('GET untangle', { query: { shown: url.pile, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const view = conflicts.data;
  const needless = useQuery({
    ...query('GET untangle/needless', { query: { pile, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const misspelt = useQuery({
    ...query('GET untangle/misspelt', { query: { pile, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const smaller = useQuery({ ...query('GET untangle/smaller'), placeholderData: keepPreviousData });
  const twice = useDuplicates();
  const several = useOverlaps();
  const counts: Record<Shown, number | undefined> = {
    conflicts: view?.counts.open,
    needless: needless.data?.counts.open,
    misspelt: misspelt.data?.counts.open,
    twice: twice.data?.counts.open,
    several: several.data?.counts.open,
    smaller: smaller.data?.lines.length,
  };
  const asked = { conflicts, needless, misspelt, twice, several, smaller }[shown];
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
        onChange={(next) => void setUrl({ shown: next, pile: 'open' })}
      >
        <Waiting query={asked} routes={ASKED} />
        {asked.error ? (
          <ErrorText error={asked.error} isWhole />
        ) : shown === 'needless' ? (
          <NeedlessView view={needless.data} />
        ) : shown === 'misspelt' ? (
          <MisspeltView view={misspelt.data} />
        ) : shown === 'twice' ? (
          <DuplicatesView view={twice.data} isStale={twice.isPlaceholderData} />
        ) : shown === 'several' ? (
          <OverlapsView view={several.data} isStale={several.isPlaceholderData} />
        ) : shown === 'smaller' ? (
          <SmallerView view={smaller.data} isStale={smaller.isPlaceholderData} />
        ) : (
          <ConflictsView view={view} isStale={conflicts.isPlaceholderData} />
        )}
      </TabbedView>
    </div>
  );
}
