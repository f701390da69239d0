'use client';

import Link from 'next/link';
import { counted } from '@/core';
import type { SavedOfToday } from '@/contracts/today';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney } from '@/screens/frame/money';
import { balance, formatDay } from '@/ui/format';

/** What was saved so far, and by which tray, beside what was predicted. */
export function SavedByTray({ saved: { soFar, trays } }: { saved: SavedOfToday }) {
  const money = useMoney();
  const { slug } = useAccount().summary;
  if (!soFar)
    return (
      <section aria-label="Saved so far" className="mt-4 text-table text-soft">
        <h2 className="font-semibold text-ink">Saved so far</h2>
        Nothing yet: what a tray saved is told from the first report on that comes after it was sent.
      </section>
    );
  const most = Math.max(1, ...trays.flatMap((tray) => [tray.realMicros, tray.predictedMicros ?? 0]));
  return (
    <section aria-label="Saved so far" className="mt-4">
      <div className="flex items-center gap-3">
        <p
          data-testid="today-saved"
          className={`font-title text-figure leading-9 font-bold ${soFar.realMicros < 0 ? 'text-rust' : ''}`}
        >
          {balance(soFar.realMicros, money)}
        </p>
        <p className="text-table leading-4">
          saved so far
          {soFar.predictedMicros !== null && `, of ${balance(soFar.predictedMicros, money)} predicted`}
          <br />
          <span className="text-soft">
            by {counted(soFar.changes, 'change')} in {counted(soFar.days, 'day')} from{' '}
            {formatDay(soFar.since)}, less what came back elsewhere
          </span>
        </p>
      </div>
      <table className="mt-1.5 w-full text-table">
        <thead className="text-small text-soft">
          <tr className="border-b border-line">
            <th className="py-1 text-left font-normal">tray, sent</th>
            <th className="text-right font-normal">predicted</th>
            <th className="text-right font-normal">saved</th>
            <th className="w-[30%]">
              <span className="sr-only">both as bars</span>
            </th>
            <th className="text-left font-normal">why they differ</th>
          </tr>
        </thead>
        <tbody>
          {trays.map(
            ({ letter, setId, sentDay, entry, predictedMicros, realMicros, difference, changes }) => (
              <tr key={setId} className="border-b border-line">
                <td className="py-1">
                  <Link
                    href={`/${slug}/ledger${entry === null ? '' : `?entry=${entry}`}`}
                    prefetch={false}
                    className="hover:underline"
                    title={counted(changes, 'change')}
                  >
                    <b className="text-pine">{letter}</b> {formatDay(sentDay)}
                  </Link>
                </td>
                <td className="text-right">
                  {predictedMicros === null ? '–' : balance(predictedMicros, money)}
                </td>
                <td className="text-right font-semibold">{balance(realMicros, money)}</td>
                <td className="pl-3">
                  <Bars predicted={predictedMicros ?? 0} real={realMicros} most={most} />
                </td>
                <td className="pl-3 text-soft">{difference ?? 'nothing was predicted'}</td>
              </tr>
            ),
          )}
        </tbody>
      </table>
    </section>
  );
}

/** What was predicted, as an outline, and below it what came. */
function Bars({ predicted, real, most }: { predicted: number; real: number; most: number }) {
  const width = (micros: number) => `${(100 * Math.max(0, micros)) / most}%`;
  return (
    <div aria-hidden>
      <div className="h-[5px] border border-dashed border-timber" style={{ width: width(predicted) }} />
      <div className="h-[5px] bg-timber" style={{ width: width(real) }} />
    </div>
  );
}
