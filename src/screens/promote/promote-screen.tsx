'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { Waiting } from '@/screens/frame/waiting';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { KeywordsView, useOwnKeywords } from './keywords/keywords-view';
import { SHOWN, toQuery, usePromoteUrl, type Shown } from './promote-url';
import { SeatsView } from './seats/seats-view';
import { TermsView } from './terms/terms-view';

const NAMES: Record<Shown, string> = {
  terms: 'Terms to promote',
  keywords: 'Own keywords that miss',
  seats: 'Seats',
};
const ASKED = ['GET promotion', 'GET promotion/keywords'] as const;

/** Search terms that pay get keywords of their own, each in one place, and no keyword competes with another for them. */
export function PromoteScreen() {
  const [url, setUrl] = usePromoteUrl();
  const [days] = useDays();
  const { query } = useRoutes();
  const asked = useQuery({
    ...query('GET promotion', { query: { ...toQuery(url), ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const keywords = useOwnKeywords();
  const view = asked.data;
  const counts: Record<Shown, number | undefined> = {
    terms: view?.counts.open,
    keywords: keywords.data?.counts.open,
    seats: view?.groups.length,
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Promote</h1>
      </header>
      <TabbedView
        label="Show"
        className="px-3"
        tabs={SHOWN.map((value) => ({
          ...{ value, name: NAMES[value] },
          count: counts[value] === undefined ? '' : formatCount(counts[value]),
        }))}
        value={url.shown}
        onChange={(next) => void setUrl({ shown: next, pile: 'open' })}
      >
        <Waiting query={asked} routes={ASKED} />
        {asked.error ? (
          <ErrorText error={asked.error} isWhole />
        ) : url.shown === 'seats' ? (
          <SeatsView view={view} />
        ) : url.shown === 'keywords' ? (
          <KeywordsView asked={keywords} />
        ) : (
          <TermsView view={view} isStale={asked.isPlaceholderData} />
        )}
      </TabbedView>
    </div>
  );
}
