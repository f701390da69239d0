'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { rollups, sum } from 'd3';
import Link from 'next/link';
import { counted } from '@/core';
import type { ForClient } from '@/contracts/for-client';
import { useAccount } from '@/screens/frame/account-context';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useMoney } from '@/screens/frame/money';
import { Button } from '@/ui/button';
import { balance, formatConversions, formatDay, formatShare } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { SpendBars } from '@/ui/spend-bars';

/** One page for the advertiser: what was stopped in these days, why, what it saved, and what was kept open. */
export function ForClientScreen() {
  const { query, address } = useRoutes();
  const { slug, name } = useAccount().summary;
  const [days] = useDays();
  const asked = { query: inDays(days) };
  const { data, error } = useQuery({
    ...query('GET today/for-client', asked),
    placeholderData: keepPreviousData,
  });
  return (
    <div
      className="min-h-0 flex-1 overflow-y-auto"
      tabIndex={0}
      role="group"
      aria-label="Page for the client"
    >
      <nav className="flex items-baseline gap-3 border-b border-line bg-paper px-4 py-2.5 print:hidden">
        <Link className="text-pine hover:underline" href={`/${slug}/today`}>
          Today
        </Link>
        <p className="min-w-0 flex-1 text-soft">
          A page to hand on, of the days chosen above. Print it, or save it as PDF there.
        </p>
        <Button tone="main" onClick={() => window.print()}>
          Print
        </Button>
        <a
          className="inline-flex items-center rounded border border-line bg-sheet px-2.5 py-1 text-table font-semibold hover:border-soft"
          href={address('GET today/for-client/sheet', asked)}
          download
        >
          XLSX
        </a>
      </nav>
      <ErrorText error={error} isWhole />
      {data && (
        <article className="mx-auto max-w-[820px] px-6 py-6">
          <h1 className="font-title text-figure leading-tight font-bold">{name}</h1>
          <p className="text-soft">
            {formatDay(data.window.from, true)} to {formatDay(data.window.to, true)}
          </p>
          <Sums data={data} />
          <SpendOf data={data} />
          <Stopped stops={data.stops} />
          <Kept kept={data.kept} />
        </article>
      )}
    </div>
  );
}

function Sums({ data: { costMicros, conversions, valueMicros, savedMicros, stops } }: { data: ForClient }) {
  const money = useMoney();
  const { steersBy } = useAccount().summary;
  const steered =
    steersBy === 'CPA'
      ? ['cost of a conversion', conversions > 0 ? money(costMicros / conversions) : 'none yet']
      : ['ad cost of the sales', valueMicros > 0 ? formatShare(costMicros / valueMicros) : 'none yet'];
  const sums = [
    [savedMicros === null ? 'not told yet' : balance(savedMicros, money), 'saved by what is stopped'],
    [money(costMicros), 'spent'],
    [formatConversions(conversions), 'conversions'],
    [steered[1], steered[0]],
  ];
  return (
    <>
      <dl className="mt-4 grid grid-cols-4 border-y border-line">
        {sums.map(([amount, what]) => (
          <div key={what} className="flex flex-col-reverse py-2">
            <dt className="text-small text-soft">{what}</dt>
            <dd className="font-title text-title font-bold">{amount}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-small text-soft">
        {counted(stops.length, 'stop')} acted in these days. Saved is what the stopped searches would have
        cost by what they cost before and by how traffic went, less what came back by other searches and
        keywords.
      </p>
    </>
  );
}

function SpendOf({ data: { days } }: { data: ForClient }) {
  const money = useMoney();
  return (
    <section className="mt-5 break-inside-avoid" aria-label="Spend by day">
      <h2 className="mb-1 font-semibold">Spend by day</h2>
      <SpendBars days={days} money={money} look="large" />
    </section>
  );
}

type Stop = ForClient['stops'][number];

/** By the reason that was given, the reason that saved most first. */
function Stopped({ stops }: { stops: readonly Stop[] }) {
  const money = useMoney();
  if (stops.length === 0) return <p className="mt-5">Nothing was stopped in these days.</p>;
  const savedBy = (some: readonly Stop[]) => sum(some, ({ savedMicros }) => savedMicros ?? 0);
  const reasons = rollups(
    stops,
    (some) => some,
    ({ why }) => why ?? 'no reason given',
  ).sort(([, a], [, b]) => savedBy(b) - savedBy(a));
  return (
    <section className="mt-5" aria-label="What was stopped, and why">
      <h2 className="font-semibold">What was stopped, and why</h2>
      {reasons.map(([why, some]) => (
        <table key={why} className="mt-2 w-full text-table">
          <caption className="border-b border-line pb-0.5 text-left">
            <b>{why[0]!.toUpperCase() + why.slice(1)}</b>
            <span className="float-right tabular-nums">{balance(savedBy(some), money)}</span>
          </caption>
          <thead className="sr-only">
            <tr>
              <th>stopped</th>
              <th>since</th>
              <th>saved</th>
            </tr>
          </thead>
          <tbody>
            {some.map(({ changeId, said, sentDay, until, savedMicros }) => (
              <tr key={changeId} className="break-inside-avoid border-b border-line">
                <td className="py-0.5 pr-3">{said}</td>
                <td className="pr-3 whitespace-nowrap text-soft">
                  {formatDay(sentDay)}
                  {until !== null && `, taken back ${formatDay(until)}`}
                </td>
                <td className="text-right tabular-nums">
                  {savedMicros === null ? '–' : balance(savedMicros, money)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}

function Kept({ kept }: { kept: ForClient['kept'] }) {
  const money = useMoney();
  if (kept.length === 0) return null;
  return (
    <section className="mt-5" aria-label="What stays open">
      <h2 className="font-semibold">What stays open, whatever is stopped</h2>
      <table className="mt-1 w-full text-table">
        <thead className="text-small text-soft">
          <tr className="border-b border-line">
            <th className="text-left font-normal">search term</th>
            <th className="text-left font-normal">why</th>
            <th className="text-right font-normal">cost</th>
            <th className="text-right font-normal">conversions</th>
          </tr>
        </thead>
        <tbody>
          {kept.map(({ text, note, by, costMicros, conversions }) => (
            <tr key={text} className="border-b border-line">
              <td className="py-0.5">{text}</td>
              <td className="text-soft">{note ?? `kept by ${by}`}</td>
              <td className="text-right tabular-nums">{money(costMicros)}</td>
              <td className="text-right tabular-nums">{formatConversions(conversions)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
