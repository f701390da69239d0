'use client';

import Link from 'next/link';
import type { News } from '@/contracts/today';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney } from '@/screens/frame/money';
import { conversionsOf, formatDay } from '@/ui/format';

/** Words and terms that were never seen before and already cost; each leads to its rows in Sift. */
export function NewWords({ news: { since, words, first, turnedBad } }: { news: News }) {
  if (since === null) return null;
  return (
    <section aria-label="What is new" className="mt-4 text-table">
      <h2 className="font-semibold">
        New words that cost <span className="font-normal text-soft">first seen since {formatDay(since)}</span>
      </h2>
      {words.length === 0 ? <p className="text-soft">None.</p> : <Chips all={words} by="holding" />}
      {turnedBad.length > 0 && (
        <>
          <h2 className="mt-2 font-semibold">
            Words that turned bad{' '}
            <span className="font-normal text-soft">not at fault at your last look</span>
          </h2>
          <Chips all={turnedBad} by="holding" />
        </>
      )}
      <h2 className="mt-2 font-semibold">
        New terms that cost <span className="font-normal text-soft">by cost</span>
      </h2>
      {first.length === 0 ? <p className="text-soft">None.</p> : <Chips all={first} by="text" />}
    </section>
  );
}

function Chips({ all, by }: { all: News['words']; by: 'holding' | 'text' }) {
  const money = useMoney();
  const { slug } = useAccount().summary;
  return (
    <ul className="mt-1 flex flex-wrap gap-x-3.5 gap-y-1">
      {all.map(({ text, costMicros, conversions }) => (
        <li key={text}>
          <Link
            href={`/${slug}/sift?${by}=${encodeURIComponent(text)}`}
            prefetch={false}
            className={`rounded px-1 hover:underline ${(conversions ?? 0) > 0 ? 'bg-moss/15' : 'bg-timber/15'}`}
          >
            {text}
          </Link>{' '}
          <span className="text-soft">
            {money(costMicros)}
            {(conversions ?? 0) > 0 && ` · ${conversionsOf({ conversions })}`}
          </span>
        </li>
      ))}
    </ul>
  );
}
