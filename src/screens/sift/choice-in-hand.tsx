'use client';

import { useState } from 'react';
import { placeKey, type MatchType } from '@/core';
import type { TouchedKeyword } from '@/contracts/common';
import type { ChoiceAnswer, PlaceChoice, TermLine } from '@/contracts/sift';
import { InHand } from '@/screens/frame/in-hand';
import { Button, Key } from '@/ui/button';
import { formatConversions, formatCount, formatDay, formatMoney, plural } from '@/ui/format';
import { Mark } from '@/ui/marks';
import { MatchChip } from '@/ui/match-chip';
import { Radio } from '@/ui/radio';
import { isSmallestSafe, placeInHand } from './choice-state';
import type { Choice } from './use-choice';

/** The term in hand: what it is, what each choice would do, and the buttons. */
export function ChoiceInHand({ line, choice }: { line: TermLine | undefined; choice: Choice }) {
  if (!line) {
    return (
      <InHand>
        <p className="text-[13px] text-soft">Choose a term to see what stopping it would do.</p>
      </InHand>
    );
  }
  const { answer, error } = choice;
  return (
    <InHand
      title={<span className="break-words">{line.raw}</span>}
      actions={<Buttons line={line} choice={choice} />}
    >
      {error && <p className="text-[13px] text-rust">{error.message}</p>}
      {answer && <Ran answer={answer} />}
      {answer && answer.choices.length > 0 && (
        <div
          className={choice.isStale ? 'opacity-70' : ''}
          data-weighed={choice.isStale ? undefined : `${answer.id} ${choice.chosen.positions.join(',')}`}
        >
          <Matches answer={answer} choice={choice} />
          <Places answer={answer} choice={choice} />
          {choice.atPlace && (
            <Consequence
              at={choice.atPlace}
              isMarked={isSmallestSafe(answer, choice.match, choice.atPlace.place)}
            />
          )}
          {choice.heldBack && <Force key={choice.text} choice={choice} />}
        </div>
      )}
      {answer && answer.kind !== 'query' && <NoWords kind={answer.kind} />}
    </InHand>
  );
}

function Ran({ answer: { ran, lastDay, isKept, keptBy, hasConverted } }: { answer: ChoiceAnswer }) {
  const [first, ...others] = ran;
  const stoppers = [
    ...new Map(
      ran.flatMap((r) => r.stoppedBy).map((s) => [`${s.match} ${s.text} ${s.placeName}`, s]),
    ).values(),
  ];
  return (
    <div className="text-[13px] text-soft">
      {first && (
        <p>
          Served by {first.keyword ? <b className="text-ink">{first.keyword}</b> : 'automatic targeting'}{' '}
          <MatchChip match={first.match} /> in {first.campaign} / {first.adGroup}
          {others.length > 0 && (
            <span
              title={others
                .map((r) => `${r.campaign} / ${r.adGroup}: ${formatMoney(r.costMicros)}`)
                .join('\n')}
            >
              {' '}
              and in {plural(others.length, 'other place')}
            </span>
          )}
          , last on {formatDay(lastDay)}
        </p>
      )}
      {isKept && (
        <p className="text-moss">
          <Mark kind="kept" /> kept open by {keptBy}
        </p>
      )}
      {!isKept && hasConverted && (
        <p className="text-moss">
          <Mark kind="kept" /> has converted, so it is protected
        </p>
      )}
      {stoppers.map((s) => (
        <p key={`${s.match} ${s.text} ${s.placeName}`} className="text-timber">
          <Mark kind="stopped" /> stopped by “{s.text}” ({s.match}) in {s.placeName}
        </p>
      ))}
    </div>
  );
}

function Matches({ answer, choice }: { answer: ChoiceAnswer; choice: Choice }) {
  const words = choice.chosen.positions.length > 0;
  return (
    <table className="mt-2 w-full border-y border-line text-[13px]">
      <caption className="sr-only">What each match type would stop at {choice.atPlace?.name}</caption>
      <thead className="text-[12px] text-soft">
        <tr>
          <th className="py-0.5 text-left font-normal">
            Stop {words ? <span className="bg-straw px-1 font-semibold text-ink">{choice.text}</span> : 'it'}{' '}
            as <Key>m</Key>
          </th>
          <th className="text-right font-normal">terms</th>
          <th className="text-right font-normal">clicks</th>
          <th className="text-right font-normal">cost</th>
          <th className="text-right font-normal">conv.</th>
        </tr>
      </thead>
      <tbody>
        {answer.choices.map((c) => {
          const at = placeInHand(
            c,
            choice.atPlace
              ? { kind: choice.atPlace.place.kind, listId: choice.atPlace.place.id }
              : { kind: 'campaign', listId: null },
          );
          const current = c.match === choice.match;
          return (
            <tr key={c.match} className={current ? 'font-semibold' : ''}>
              <td>
                <label className="-ml-1.5 flex items-center gap-0.5">
                  <Radio
                    name="match"
                    checked={current}
                    disabled={c.refusal !== null}
                    onChange={() => choice.setMatch(c.match)}
                  />
                  {c.match}
                  <span className="font-normal text-soft">{noteOf(c.match, words)}</span>
                </label>
              </td>
              {c.refusal !== null || !at ? (
                <td colSpan={4} className="text-right text-[12px] text-soft">
                  {c.refusal}
                </td>
              ) : (
                <>
                  <td className="text-right">{formatCount(at.weight.terms)}</td>
                  <td className="text-right">{formatCount(at.weight.clicks ?? 0)}</td>
                  <td className="text-right">{formatMoney(at.weight.costMicros ?? 0)}</td>
                  <td className="text-right">{formatConversions(at.weight.conversions ?? 0)}</td>
                </>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function noteOf(match: MatchType, words: boolean): string {
  return match === 'exact' && words ? 'whole term' : '';
}

function Places({ answer, choice }: { answer: ChoiceAnswer; choice: Choice }) {
  const current = choice.atPlace;
  const places = choice.ofMatch?.places ?? [];
  const short: Record<PlaceChoice['place']['kind'], (p: PlaceChoice) => string> = {
    adGroup: () => 'ad group',
    campaign: () => 'campaign',
    list: (p) => p.name,
    account: () => 'account',
  };
  return (
    <fieldset className="mt-2">
      <legend className="text-[12px] text-soft">
        at <Key>p</Key> <span aria-hidden>· terms · ! touches something</span>
      </legend>
      <div className="mt-1 flex max-h-[118px] flex-wrap gap-1 overflow-y-auto">
        {places.map((p) => {
          const chosen = current !== undefined && placeKey(p.place) === placeKey(current.place);
          const hurts = p.touched.length > 0 || p.protectedCount > 0;
          const marked = isSmallestSafe(answer, choice.match, p.place);
          return (
            <button
              key={placeKey(p.place)}
              type="button"
              aria-pressed={chosen}
              title={[p.name, p.note].filter(Boolean).join(': ')}
              onClick={() =>
                choice.setPlace({ kind: p.place.kind, listId: p.place.kind === 'list' ? p.place.id : null })
              }
              className={`min-h-6 rounded border px-1.5 text-[12px] ${chosen ? 'border-pine font-semibold text-pine' : 'border-line'} ${marked ? 'border-moss border-dashed' : ''}`}
            >
              {short[p.place.kind](p)}{' '}
              <span className="font-normal text-soft">
                {p.isThere ? 'there' : formatCount(p.weight.terms)}
              </span>
              {hurts && <span className="font-bold text-rust"> !</span>}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

function Consequence({ at, isMarked }: { at: PlaceChoice; isMarked: boolean }) {
  const { weight, touched, protectedTerms, protectedCount } = at;
  const conversions = weight.conversions ?? 0;
  return (
    <div className="mt-2 text-[13px]" aria-live="polite" data-testid="consequence">
      <p>
        <b>{at.place.kind === 'account' ? 'The whole account' : at.name}</b>
        {at.note && <span className="text-soft"> {at.note}</span>}
        {at.isThere ? (
          '. It stands there already.'
        ) : (
          <>
            . Stops {plural(weight.terms, 'term')}: {plural(weight.clicks ?? 0, 'click')},{' '}
            {formatMoney(weight.costMicros ?? 0)} spent,{' '}
            {conversions > 0 ? (
              <span className="font-semibold text-rust">
                {formatConversions(conversions)} conversions lost
              </span>
            ) : (
              'no conversion'
            )}
            .
          </>
        )}
      </p>
      {protectedCount > 0 && (
        <p className="text-rust">
          <Mark kind="hurting" /> Would stop {plural(protectedCount, 'protected term')}:{' '}
          {protectedTerms.slice(0, 3).join(', ')}
          {protectedCount > 3 && ` and ${protectedCount - 3} more`}.
        </p>
      )}
      {touched.length > 0 && (
        <p className="text-rust">
          <Mark kind="hurting" /> {describeTouched(touched)}
        </p>
      )}
      {at.isSafe && (
        <p className="text-moss">
          {isMarked ? 'Smallest safe choice: ' : 'Safe: '}
          touches no live keyword, no protected term.
        </p>
      )}
    </div>
  );
}

function describeTouched(touched: readonly TouchedKeyword[]): string {
  const some = touched.slice(0, 3).map((k) => `“${k.text}” (${k.match}) is ${k.severity}`);
  const more = touched.length > 3 ? ` and ${touched.length - 3} more` : '';
  return `${plural(touched.length, 'live keyword')} touched: ${some.join(', ')}${more}.`;
}

/** A change that is held back can be forced with a written reason, which goes into the ledger. */
function Force({ choice }: { choice: Choice }) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-2 border-l-[3px] border-rust bg-rust/10 px-2.5 py-2 text-[13px]"
      role="alert"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length >= 3) void choice.put(reason.trim());
      }}
    >
      <p>{choice.heldBack!.said}</p>
      <label className="mt-1 block">
        Reason to force it
        <input
          className="mt-0.5 w-full rounded border border-line bg-sheet px-1.5 py-0.5"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <button
        type="submit"
        disabled={reason.trim().length < 3}
        className="mt-1.5 rounded border border-rust px-2 font-semibold text-rust disabled:opacity-50"
      >
        Force it, with this reason
      </button>
    </form>
  );
}

function NoWords({ kind }: { kind: ChoiceAnswer['kind'] }) {
  const text =
    kind === 'code'
      ? 'This is a product code. It can not be a keyword negative: exclude the product on the platform instead.'
      : 'This term holds no word, so no negative can stop it.';
  return <p className="mt-2 text-[13px]">{text}</p>;
}

function Buttons({ line, choice }: { line: TermLine; choice: Choice }) {
  if (line.words.length === 0) return null;
  const cannot = choice.ofMatch?.refusal != null || choice.atPlace === undefined || choice.atPlace.isThere;
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" hotkey="↵" disabled={cannot} onClick={() => void choice.put()}>
        Put in the tray
      </Button>
      {choice.answer?.isKept ? (
        <Button onClick={() => void choice.letGo()}>No longer keep</Button>
      ) : (
        <Button hotkey="o" onClick={() => void choice.keep()}>
          Keep
        </Button>
      )}
      <Button hotkey="w" onClick={() => void choice.stopWhole()}>
        Stop whole
      </Button>
    </div>
  );
}
