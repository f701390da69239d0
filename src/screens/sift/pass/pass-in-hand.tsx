'use client';

import type { PassTerm, PassWord } from '@/contracts/pass';
import { counted, listed } from '@/core';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { Explain } from '@/ui/explain';
import { conversionsOf, formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { BesideNeighbours } from '../hand/beside-neighbours';
import { sayFault } from '../words/say-fault';
import { WhyAtFault } from '../words/why-at-fault';
import { nameOf, type Pass } from './use-pass';

/** The word or term in hand: what is held against it, where it would be stopped, and what that would do and risk. */
export function PassInHand({ pass }: { pass: Pass }) {
  const { item, answer } = pass;
  if (!item || !answer) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">
          {answer ? 'Nothing is left of what can’t pay in this window.' : 'The pass is being reckoned.'}
        </p>
      </InHand>
    );
  }
  return (
    <InHand title={<span className="break-words">{nameOf(item)}</span>} actions={<Buttons pass={pass} />}>
      {item.step === 'words' ? (
        <Word word={item.word} since={answer.since} pass={pass} />
      ) : (
        <Term term={item.term} />
      )}
    </InHand>
  );
}

function Word({ word, since, pass }: { word: PassWord; since: string | null; pass: Pass }) {
  const formatMoney = useMoney();
  const { negatives, leavesOpen, places, fault } = word;
  return (
    <>
      <p className="mt-1 text-table">
        In {counted(fault.terms, 'term')} with {counted(fault.clicks, 'click')}. {sayFault(fault, since)}{' '}
        <WhyAtFault />
      </p>
      {leavesOpen.count > 0 && (
        <p className="mt-1 text-table">
          It would stop {counted(leavesOpen.count, 'protected term')} (
          {listed(leavesOpen.first, leavesOpen.count)}), so {counted(negatives.count, 'longer negative')} that
          leave {leavesOpen.count === 1 ? 'it' : 'them'} open are put in its place:{' '}
          {listed(
            negatives.first.map(({ text, match }) => `“${text}” (${match})`),
            negatives.count,
          )}
          .
        </p>
      )}
      <fieldset className="mt-2 text-table">
        <legend className="text-small text-soft">
          as phrase, in <Key>p</Key>
        </legend>
        {places.map(({ place, name, note, stops, risks }, i) => (
          <label
            key={`${place.kind} ${place.id}`}
            className={`flex items-start gap-1 border-b border-line py-1 ${i === pass.placeAt ? 'bg-raised' : ''}`}
          >
            <Radio name="pass-place" checked={i === pass.placeAt} onChange={() => pass.setPlace(i)} />
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{name}</b>
              <br />
              Stops {counted(stops.terms, 'term')}: {counted(stops.clicks ?? 0, 'click')},{' '}
              <span className="text-timber">{formatMoney(stops.costMicros)}</span>, {conversionsOf(stops)}.
              Risks {risks.toFixed(1)} {risks.toFixed(1) === '1.0' ? 'conversion' : 'conversions'}.
              {note && <span className="block text-soft">{note}</span>}
            </span>
          </label>
        ))}
      </fieldset>
    </>
  );
}

function Term({ term }: { term: PassTerm }) {
  const formatMoney = useMoney();
  const { stops, campaigns, risks, clicks, conversions, beside, misses } = term;
  return (
    <>
      <p className="mt-1 text-table">
        {counted(clicks, 'click')}, {conversionsOf({ conversions })} over all days that are kept.
        {misses !== null && ` ${formatCount(Math.round(misses * 100))} % sure that it misses the target.`}
      </p>
      {beside && <BesideNeighbours beside={beside} misses={misses} />}
      <p className="mt-2 text-table">
        As exact in {listed(campaigns.first)}
        {campaigns.count > campaigns.first.length && ` and ${campaigns.count - campaigns.first.length} more`}:
        stops {counted(stops.clicks ?? 0, 'click')},{' '}
        <span className="text-timber">{formatMoney(stops.costMicros)}</span>, {conversionsOf(stops)}. Risks{' '}
        {risks.toFixed(2)} conversions.
      </p>
    </>
  );
}

function Buttons({ pass }: { pass: Pass }) {
  const isWord = pass.item?.step === 'words';
  return (
    <div className="flex flex-wrap gap-1.5 pt-2">
      <Button tone="main" hotkey="↵" onClick={() => void pass.put()}>
        Put in the tray
      </Button>
      {!isWord && (
        <Button hotkey="o" onClick={() => void pass.keep()}>
          Keep
        </Button>
      )}
      <Button
        hotkey="l"

        onClick={() => void pass.leave()}
      >
        {isWord ? 'Not at fault' : 'Aside'}
      </Button>
      <Explain about={isWord ? 'not at fault' : 'aside'} className="min-w-6">
        {isWord
          ? 'Not at fault: it is neutral from now on, never offered, and never shown among the words.'
          : 'Aside: it is hidden until it has 20 more clicks.'}
      </Explain>
    </div>
  );
}
