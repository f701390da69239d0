'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { daysBetween } from '@/core';
import type { NextThing } from '@/contracts/today';
import { useAccount } from '@/screens/frame/account-context';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { askToSend } from '@/screens/tray/ask-to-send';
import { Button } from '@/ui/button';
import { ErrorText } from '@/ui/said';
import { useRoving } from '@/ui/use-roving';
import { sayWorth, wayOf } from './next-things';

/** What waits on each screen, by what it is worth; what has the focus is in hand, and Enter goes there. */
export function NextList() {
  const { query } = useRoutes();
  const [days] = useDays();
  const asked = query('GET today/next', { query: inDays(days) });
  const { data, error } = useQuery({ ...asked, placeholderData: keepPreviousData });
  const things = data?.next ?? [];
  const length = data ? daysBetween(data.window.from, data.window.to) + 1 : 0;
  const roving = useRoving(things.length);
  const money = useMoney();
  const inHand = things[roving.at];
  return (
    <section aria-label="Next, by what it is worth">
      <h2 className="font-semibold">Next, by what it is worth</h2>
      <ErrorText error={error} />
      {data && things.length === 0 && (
        <p className="text-table text-soft" tabIndex={-1} data-work>
          Nothing waits. Well done.
        </p>
      )}
      <ul className="mt-1 border-t border-line" {...roving.list}>
        {things.map((thing, index) => (
          <li key={thing.kind} className="border-b border-line">
            <Goes
              thing={thing}
              item={{ ...roving.itemOf(index), ...(index === roving.at && { 'data-work': true }) }}
              className={`flex w-full items-start gap-3 border-l-[3px] px-2.5 py-1.5 text-left ${index === roving.at ? 'border-pine bg-raised' : 'border-transparent hover:bg-raised'}`}
            >
              <span className="min-w-0 flex-1">
                {wayOf(thing).says}
                <span className="line-clamp-2 text-small text-soft">{sayWorth(thing, length, money)}</span>
              </span>
              <span className="text-table font-semibold text-pine">{wayOf(thing).screen}</span>
            </Goes>
          </li>
        ))}
      </ul>
      {inHand ? (
        <ThingInHand thing={inHand} days={length} />
      ) : (
        <InHand>
          <p className="mt-1 text-table text-soft">What is next stands here, with what it is worth.</p>
        </InHand>
      )}
    </section>
  );
}

type GoesProps = {
  thing: NextThing;
  /** the one in hand is where Esc and the first stop of Tab lead */
  item: { 'data-item': number; tabIndex: number; 'data-work'?: true };
  className?: string;
  children: React.ReactNode;
};

/** Where a thing is done: a screen, or the page from which the tray is sent. */
function Goes({ thing, item, ...rest }: GoesProps) {
  const { slug } = useAccount().summary;
  const { path } = wayOf(thing);
  return path === '' ? (
    <button type="button" {...item} {...rest} onClick={askToSend} />
  ) : (
    <Link href={`/${slug}/${path}`} prefetch={false} {...item} {...rest} />
  );
}

function ThingInHand({ thing, days }: { thing: NextThing; days: number }) {
  const money = useMoney();
  const router = useRouter();
  const { slug } = useAccount().summary;
  const { says, path, press } = wayOf(thing);
  const { worthMicros, risks, first, count } = thing;
  const go = () => (path === '' ? askToSend() : router.push(`/${slug}/${path}`));
  return (
    <InHand
      title={says}
      actions={
        <Button tone="main" onClick={go}>
          {press}
        </Button>
      }
    >
      <div className="mt-1 text-table">
        {worthMicros !== null && <p>{sayWorth(thing, days, money)}.</p>}
        {risks !== null && (
          <p className="text-soft">
            Stopping all of it risks about {risks.toFixed(1)} conversions, by what is known.
          </p>
        )}
        <ul className="mt-1">
          {first.map(({ text, costMicros }) => (
            <li key={text} className="flex gap-2 border-b border-line py-0.5">
              <span className="min-w-0 flex-1 break-words">{text}</span>
              {costMicros !== null && <span className="text-timber">{money(costMicros)}</span>}
            </li>
          ))}
        </ul>
        {count > first.length && first.length > 0 && (
          <p className="text-soft">and {count - first.length} more</p>
        )}
      </div>
    </InHand>
  );
}
