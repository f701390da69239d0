'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { group } from 'd3';
import Link from 'next/link';
import { counted } from '@/core';
import type { News, SavedOfToday, Today } from '@/contracts/today';
import { useAccount } from '@/screens/frame/account-context';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useMoney } from '@/screens/frame/money';
import { formatDay } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { SpendBars } from '@/ui/spend-bars';
import { ForYou } from './for-you';
import { Lately } from './lately';
import { NextList } from './next-list';
import { NewWords } from './new-words';
import { RegretWatch } from './regret-watch';
import { SavedByTray } from './saved-by-tray';

/** Read in a minute, from left to right: what flowed and what was saved, what is new, and what to do next. */
export function TodayScreen() {
  const { query, call } = useRoutes();
  const { slug, dataDays } = useAccount().summary;
  const [days] = useDays();
  const asked = { query: inDays(days) };
  const { data, error } = useQuery({ ...query('GET today', asked), placeholderData: keepPreviousData });
  const { data: saved } = useQuery({ ...query('GET today/saved'), placeholderData: keepPreviousData });
  const { data: news } = useQuery({
    queryKey: ['POST today/look', slug, dataDays?.to],
    queryFn: () => call('POST today/look'),
    staleTime: Infinity,
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Today</h1>
        <p className="text-soft">
          {data && formatDay(data.today, true)}
          {news && <SinceThen news={news} />}
        </p>
        {dataDays !== null && (
          <Link
            className="ml-auto shrink-0 text-pine hover:underline"
            href={`/${slug}/today/for-client${days === null ? '' : `?days=${days}`}`}
          >
            For the client
          </Link>
        )}
      </header>
      <ErrorText error={error} isWhole />
      {dataDays === null ? (
        <NoData slug={slug} />
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)] max-[1180px]:block max-[1180px]:overflow-y-auto">
          <div
            className="min-h-0 overflow-y-auto px-4 py-3 max-[1180px]:overflow-visible"
            role="group"
            aria-label="What flowed and what was saved"
            tabIndex={0}
          >
            {data && <Spend today={data} saved={saved} />}
            {saved && <SavedByTray saved={saved} />}
            {news && <NewWords news={news} />}
          </div>
          <div className="min-h-0 overflow-y-auto border-l border-line px-4 py-3 max-[1180px]:overflow-visible max-[1180px]:border-t max-[1180px]:border-l-0">
            <ForYou />
            <NextList />
            <EndsSoon />
            <RegretWatch />
            <Lately />
          </div>
        </div>
      )}
    </div>
  );
}

function SinceThen({ news: { since, days, terms, costMicros } }: { news: News }) {
  const money = useMoney();
  if (since === null) return '. Nothing came since your last look.';
  return `. New since ${formatDay(since)}: ${counted(days, 'day')}, ${counted(terms, 'new term')}, ${money(costMicros)} spent on them.`;
}

function NoData({ slug }: { slug: string }) {
  return (
    <div className="max-w-[60ch] p-4">
      <p>
        Nothing is known of this account yet. Bring a search term report: then this page shows what it cost
        without return, and what to do about it.
      </p>
      <p className="mt-3">
        <Link href={`/${slug}/intake`} className="font-semibold text-pine underline">
          To Intake
        </Link>
      </p>
    </div>
  );
}

function Spend({ today: { days, window }, saved }: { today: Today; saved: SavedOfToday | undefined }) {
  const money = useMoney();
  const shown = (saved?.trays ?? []).filter(({ sentDay }) => sentDay >= window.from && sentDay <= window.to);
  const stoppedOn = new Map(saved?.days.map(({ day, stoppedMicros }) => [day, stoppedMicros]));
  const sum = (key: 'returnedMicros' | 'openMicros') => days.reduce((all, day) => all + day[key], 0);
  return (
    <section aria-label="Spend by day">
      <h2 className="mb-2 font-semibold">
        Spend by day
        <span className="ml-2 text-table font-normal text-soft">
          {money(sum('returnedMicros') + sum('openMicros'))} in {counted(days.length, 'day')}:{' '}
          {money(sum('returnedMicros'))} on terms that returned, {money(sum('openMicros'))} on others
        </span>
      </h2>
      <SpendBars
        days={days.map((day) => ({ ...day, stoppedMicros: stoppedOn.get(day.day) ?? 0 }))}
        money={money}
        look="large"
        flags={[...group(shown, ({ sentDay }) => sentDay)].map(([day, trays]) => ({
          ...{
            day,
            letter: trays
              .map(({ letter }) => letter)
              .reverse()
              .join(' '),
          },
        }))}
      />
    </section>
  );
}

function EndsSoon() {
  const { query } = useRoutes();
  const { data } = useQuery({ ...query('GET today/ending'), placeholderData: keepPreviousData });
  if (data === undefined || data.ending.length === 0) return null;
  return (
    <section aria-label="Ends soon" className="mt-4 text-table">
      <h2 className="font-semibold">Ends soon</h2>
      <ul>
        {data.ending.map(({ changeId, said, endsOn }) => (
          <li key={changeId} className="border-b border-line py-1">
            {said} <span className="text-soft">is taken back on {formatDay(endsOn, true)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
