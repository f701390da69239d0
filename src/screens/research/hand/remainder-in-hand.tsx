'use client';

import { counted } from '@/core';
import { InHand } from '@/screens/frame/in-hand';
import { Button, Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { PlaceOfNegatives } from './place-of-negatives';
import type { RemainderChoice } from './use-remainder';
import { WeighedNegatives } from './weighed-negatives';

/** Ideas that are shown in hand; the others are counted. */
const MOST_SHOWN = 8;

/** The remainder in hand: the ideas that hold it, and what stopping it would do. */
export function RemainderInHand({ remainder }: { remainder: RemainderChoice }) {
  const { line, weighed, ideas } = remainder;
  if (!line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  return (
    <InHand title={line.text} actions={<Actions remainder={remainder} />}>
      <p className="mt-1 text-table text-soft">
        Holds {counted(line.ideas, 'idea')}
        {line.volume !== null && `, ${formatCount(line.volume)} searches a month`}.
      </p>
      {ideas && (
        <ul className="mt-1 text-table" aria-label="Ideas that hold it">
          {ideas.slice(0, MOST_SHOWN).map(({ key, words }) => (
            <li key={key} className="border-b border-line py-0.5 text-soft">
              {words.map(({ text, isChosen }, i) => (
                <span key={i} className={isChosen ? 'rounded bg-straw px-0.5 text-ink' : ''}>
                  {text}{' '}
                </span>
              ))}
            </li>
          ))}
          {ideas.length > MOST_SHOWN && (
            <li className="text-small text-soft">and {formatCount(ideas.length - MOST_SHOWN)} more</li>
          )}
        </ul>
      )}
      {weighed && <WeighedNegatives remainder={remainder} weighed={weighed} />}
      <PlaceOfNegatives place={remainder.place} onChange={remainder.setPlace} />
    </InHand>
  );
}

function Actions({ remainder }: { remainder: RemainderChoice }) {
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" onClick={() => void remainder.put()}>
        Put in the tray <Key>↵</Key>
      </Button>
      <Button onClick={() => void remainder.decide('kept')}>
        Keep <Key>o</Key>
      </Button>
      <Button onClick={() => void remainder.decide('dropped')}>
        Drop <Key>x</Key>
      </Button>
    </div>
  );
}
