'use client';

import { useQuery } from '@tanstack/react-query';
import type { Place } from '@/core';
import { counted } from '@/core';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button, Key } from '@/ui/button';
import { formatConversions, formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { Select } from '@/ui/select';
import type { Match, RemainderChoice } from './use-remainder';

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
      {weighed && <Weighed remainder={remainder} weighed={weighed} />}
      <PlaceOfNegatives place={remainder.place} onChange={remainder.setPlace} />
    </InHand>
  );
}

const NAMES: Record<Match, string> = { phrase: 'phrase', broad: 'broad', exact: 'exact' };

function Weighed({
  remainder,
  weighed,
}: {
  remainder: RemainderChoice;
  weighed: NonNullable<RemainderChoice['weighed']>;
}) {
  const money = useMoney();
  const { match, setMatch, takesForms, setTakesForms, line } = remainder;
  return (
    <>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-2 text-table">
        <legend className="sr-only">Match type</legend>
        Stop as <Key>m</Key>
        {(Object.keys(NAMES) as Match[]).map((one) => (
          <label key={one} className="flex items-center gap-0.5">
            <Radio name="match" checked={match === one} onChange={() => setMatch(one)} />
            {NAMES[one]}
          </label>
        ))}
      </fieldset>
      <table className="mt-1 w-full border-y border-line text-table">
        <caption className="sr-only">What each would stop</caption>
        <thead className="text-small text-soft">
          <tr>
            <th className="text-left font-normal">negative</th>
            <th className="text-right font-normal">ideas</th>
            <th className="text-right font-normal">terms here</th>
            <th className="text-right font-normal">cost</th>
            <th className="text-right font-normal">conv.</th>
          </tr>
        </thead>
        <tbody>
          {weighed.negatives.map(({ text, ideas, weight, refusal }) => (
            <tr key={text}>
              <td className="font-semibold break-words">{text}</td>
              {refusal === null ? (
                <>
                  <td className="text-right">{formatCount(ideas)}</td>
                  <td className="text-right">{formatCount(weight.terms)}</td>
                  <td className="text-right">{money(weight.costMicros ?? 0)}</td>
                  <td className="text-right">{formatConversions(weight.conversions ?? 0)}</td>
                </>
              ) : (
                <td colSpan={4} className="text-right text-small text-rust">
                  {refusal}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {line && line.forms.length > 1 && (
        <button
          type="button"
          className="min-h-6 text-table text-pine hover:underline"
          aria-pressed={takesForms}
          onClick={() => setTakesForms(!takesForms)}
        >
          {takesForms ? `Only ${line.forms[0]!}` : `With ${line.forms.slice(1).join(', ')}`} <Key>v</Key>
        </button>
      )}
      <Hurts protectedTerms={weighed.protected} touched={weighed.keywords} />
    </>
  );
}

function PlaceOfNegatives({ place, onChange }: { place: Place; onChange: (place: Place) => void }) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET lists'));
  const keyOf = ({ kind, id }: Place) => (kind === 'account' ? 'account' : `${kind} ${id}`);
  const places: { place: Place; says: string }[] = [
    { place: { kind: 'account', id: null }, says: 'the whole account' },
    ...(data?.lists ?? []).map(({ id, name }) => ({
      place: { kind: 'list', id } as Place,
      says: `list ${name}`,
    })),
    ...(data?.campaigns ?? []).map(({ id, name }) => ({
      place: { kind: 'campaign', id } as Place,
      says: `campaign ${name}`,
    })),
  ];
  return (
    <p className="mt-2 text-table">
      in{' '}
      <Select
        look="word"
        label="Place"
        value={keyOf(place)}
        options={places.map((one) => ({ key: keyOf(one.place), says: one.says }))}
        onChange={(key) => onChange(places.find((one) => keyOf(one.place) === key)!.place)}
      />
    </p>
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
