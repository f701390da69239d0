'use client';

import { counted } from '@/core';
import type { SeatingLine } from '@/contracts/overlaps';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { conversionsOf, formatCount, formatShare } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { optionsIn, optionsOf, Select } from '@/ui/select';
import { LeaveButton, LeftOrLeaving } from '../leaving/leave';
import type { OverlapInHand as InHandOf } from './use-overlap';

const MATCHES = optionsOf<SeatingLine['match']>(['exact', 'phrase']);
const PLACES: Record<SeatingLine['where'], string> = {
  ...{ 'ad groups': 'in the other ad groups', campaigns: 'in their campaigns' },
};

/** Who keeps the term in hand, by which negatives the others lose it, and what else these touch. */
export function OverlapInHand({ overlap }: { overlap: InHandOf }) {
  const { line, keeps, way, view, marked, together, put, leaving } = overlap;
  if (!line || !keeps) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const isClosed = marked > 0 ? together === 0 : !way || way.hits.count > 0;
  return (
    <InHand
      title={marked > 0 ? `${formatCount(marked)} marked` : line.term}
      actions={
        !leaving.isLeaving && (
          <div className="flex flex-wrap gap-1.5">
            <Button tone="main" disabled={isClosed} onClick={() => void put()}>
              Put in the tray <Key>↵</Key>
            </Button>
            {marked === 0 && <LeaveButton leaving={leaving} />}
          </div>
        )
      }
    >
      {marked > 0 ? (
        <p className="mt-1 text-table">
          Each is left to the ad group that is suggested, by exact negatives in the others; these touch
          nothing else.
          {together < marked &&
            ` Passed over: ${formatCount(marked - together)}, of which another ad group has the term as its exact keyword. Decide on these one by one.`}
        </p>
      ) : (
        <>
          <p className="mt-1 text-table">
            Is left to <b>{`${keeps.campaign} · ${keeps.adGroup}`}</b>
            {overlap.at === 0 && line.sure > 0 && `, sure to ${formatShare(line.sure)}`}.
          </p>
          <ErrorText error={overlap.error} />
          <WayChoice overlap={overlap} />
          <LeftOrLeaving leaving={leaving} />
          {way ? (
            <Effect way={way} />
          ) : (
            <p className="mt-1.5 text-table text-soft">Each way is being tried…</p>
          )}
          {view?.isProtected && (
            <p className="mt-1.5 text-table text-soft">
              It is protected, and stays open here: that is the reason the ledger will tell.
            </p>
          )}
        </>
      )}
    </InHand>
  );
}

function WayChoice({ overlap: { match, setMatch, place, places, setWhere } }: { overlap: InHandOf }) {
  return (
    <p className="mt-1.5 flex flex-wrap items-center gap-x-1.5 text-table text-soft">
      as
      <Select label="Match type" look="word" options={MATCHES} value={match} onChange={setMatch} />
      <Key>m</Key>
      {places.length > 1 ? (
        <>
          <Select
            label="Place"
            look="word"
            options={optionsIn(places, PLACES)}
            value={place}
            onChange={setWhere}
          />
          <Key>p</Key>
        </>
      ) : (
        PLACES[place]
      )}
    </p>
  );
}

/** What the negatives stop: the term in the other places, and what else. */
function Effect({ way: { changes, stops, also, alsoStops, keywords, hits } }: { way: SeatingLine }) {
  const money = useMoney();
  return (
    <>
      <p className="mt-1.5 text-table">
        {counted(changes.length, 'negative')} {changes.length === 1 ? 'stops' : 'stop'} it elsewhere, where it
        had {counted(stops.clicks ?? 0, 'click')}, {money(stops.costMicros ?? 0)} and {conversionsOf(stops)}.
      </p>
      {alsoStops.count === 0 ? (
        <p className="text-table text-soft">No other term that was served is touched.</p>
      ) : (
        <p className="mt-1 text-table text-rust">
          Also stops {counted(alsoStops.count, 'other term')}: {quoted(alsoStops)}{' '}
          {counted(also.clicks ?? 0, 'click')}, {conversionsOf(also)}.
        </p>
      )}
      {keywords.count > 0 && (
        <p className="mt-1 text-table text-rust">
          {counted(keywords.count, 'live keyword')} there {keywords.count === 1 ? 'says' : 'say'} this:{' '}
          {keywords.first.join(', ')}
          {keywords.count > keywords.first.length && ' …'}
        </p>
      )}
      {hits.count > 0 && (
        <p className="mt-1 text-table text-rust">
          Would stop {counted(hits.count, 'other protected term')}: {quoted(hits)} Choose exact.
        </p>
      )}
    </>
  );
}

function quoted({ count, first }: SeatingLine['hits']): string {
  const named = first.map((text) => `“${text}”`).join(', ');
  return count > first.length ? `${named} …` : `${named}.`;
}
