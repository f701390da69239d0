'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BatchAnswer, BatchWay, LeftOut } from '@/contracts/decisions';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { conversionsOf, formatCount, formatShare } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { Radio } from '@/ui/radio';
import { Select } from '@/ui/select';
import type { Batch } from './use-batch';
import { Check } from '@/ui/check';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, listed } from '@/core';
import { ErrorText } from '@/ui/said';

const LIMITS = [1, 3, 5, 10, 25, 50, 100, 200];

/** The marked rows in hand: what stopping them together would do, and the ways to decide all at once. */
export function BatchInHand({
  count,
  batch,
  onUnmark,
}: {
  count: number;
  batch: Batch;
  onUnmark: () => void;
}) {
  const { answer, way, isStale, isBusy, error } = batch;
  const [moreClicks, setMoreClicks] = useState(10);
  return (
    <InHand
      title={`${counted(count, 'term')} marked`}
      actions={
        <div className="flex flex-wrap items-center gap-1.5">
          <Button
            tone="main"
            hotkey="↵"
            disabled={isBusy || isStale || !answer || answer.refusal !== null}
            onClick={() => void batch.put()}
          >
            Put in the tray
          </Button>
          <Button disabled={isBusy} onClick={() => void batch.setVerdicts({ is: 'kept' })}>
            Keep all
          </Button>
          <span className="flex items-center gap-1 text-table">
            <Button disabled={isBusy} onClick={() => void batch.setVerdicts({ is: 'aside', moreClicks })}>
              Set aside
            </Button>
            <label className="flex items-center gap-1 text-small text-soft">
              until
              <input
                type="number"
                min={1}
                aria-label="More clicks until they come back"
                className="w-13 rounded border border-line bg-sheet px-1 py-0.5 text-right text-ink"
                value={moreClicks}
                onChange={(e) => setMoreClicks(Math.max(1, Math.round(Number(e.target.value)) || 1))}
              />
              more clicks
            </label>
          </span>
          <Button tone="quiet" onClick={onUnmark}>
            Take marks off
          </Button>
        </div>
      }
    >
      <Ways way={way} onChange={batch.setWay} />
      <PlacePicker batch={batch} />
      <ErrorText error={error} />
      {!answer && !error && <p className="mt-2 text-table text-soft">Weighing …</p>}
      {answer && (
        <div
          className={`mt-2 text-table ${isStale ? 'opacity-60' : ''}`}
          aria-live="polite"
          data-testid="batch"
        >
          <Consequence answer={answer} />
        </div>
      )}
    </InHand>
  );
}

function Ways({ way, onChange }: { way: BatchWay; onChange: (way: BatchWay) => void }) {
  const few = way.by === 'few' ? way : { by: 'few' as const, limit: 25, mayStopOthers: false };
  return (
    <fieldset className="mt-1 text-table">
      <legend className="sr-only">How to stop them</legend>
      <span className="-ml-1.5 flex items-center gap-0.5">
        <label className="flex items-center gap-0.5">
          <Radio name="way" checked={way.by === 'few'} onChange={() => onChange(few)} />
          by the smallest set, at most
        </label>
        <Select
          label="At most so many negatives"
          look="word"
          className="ml-1"
          options={LIMITS.map((n) => ({ key: String(n), says: counted(n, 'negative') }))}
          value={String(few.limit)}
          onChange={(limit) => onChange({ ...few, limit: Number(limit) })}
        />
      </span>
      {way.by === 'few' && (
        <label className="flex min-h-6 items-center gap-1.5 pl-5 text-small text-soft">
          <Check
            checked={way.mayStopOthers}
            onChange={(e) => onChange({ ...few, mayStopOthers: e.target.checked })}
          />
          may stop terms that are not marked
        </label>
      )}
      <label className="-ml-1.5 flex items-center gap-0.5">
        <Radio name="way" checked={way.by === 'each'} onChange={() => onChange({ by: 'each' })} />
        each as exact, whole term
      </label>
    </fieldset>
  );
}

function PlacePicker({ batch: { place, setPlace } }: { batch: Batch }) {
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET lists'),
  });
  return (
    <p className="mt-1 flex items-center gap-1.5 text-table">
      in
      <Select
        label="Place of the negatives"
        look="word"
        options={[
          { key: 'own campaign', says: 'the campaign of each' },
          { key: 'own ad group', says: 'the ad group of each' },
          { key: 'account', says: 'the whole account' },
          ...(data?.lists ?? [])
            .filter(({ holds }) => holds === 'words')
            .map(({ id, name }) => ({ key: id, says: `list ${name}` })),
        ]}
        value={place.kind === 'list' ? place.id : place.kind}
        onChange={(key) =>
          setPlace(
            key === 'account' || key === 'own campaign' || key === 'own ad group'
              ? { kind: key }
              : { kind: 'list', id: key },
          )
        }
      />
    </p>
  );
}

function Consequence({ answer }: { answer: BatchAnswer }) {
  const formatMoney = useMoney();
  const { stops, others, bound, leftOut, negatives, changes, touched, refusal } = answer;
  return (
    <>
      {refusal && <p className="text-rust">{refusal}</p>}
      <p>
        <b>{counted(negatives.count, 'negative')}</b>
        {changes !== negatives.count && ` in ${counted(changes, 'place')}`}. Stops{' '}
        {counted(stops.terms, 'marked term')}: {counted(stops.clicks ?? 0, 'click')},{' '}
        {formatMoney(stops.costMicros ?? 0)} spent, {conversionsOf(stops)}.
      </p>
      {bound && bound.mostMicros > 0 && (
        <p className="text-soft">
          At least {formatShare(Math.floor((bound.stoppedMicros / bound.mostMicros) * 100) / 100)} of the most
          that so many negatives can stop.
        </p>
      )}
      {others.terms === 0 ? (
        <p className="text-moss">Stops nothing that is not marked.</p>
      ) : (
        <p className="text-timber">
          <StateIcon kind="stopped" /> Also stops {counted(others.terms, 'term')} not marked:{' '}
          {formatMoney(others.costMicros ?? 0)}, {conversionsOf(others)}:{listed(others.first, others.terms)}
        </p>
      )}
      <Hurts protectedTerms={{ count: 0, first: [] }} touched={touched} />
      {leftOut.map((one) => (
        <p key={one.why} className="text-soft">
          {sayLeftOut(one)}
        </p>
      ))}
      <ul className="mt-1.5 border-t border-line" aria-label="Negatives">
        {negatives.first.map(({ text, match, places }) => (
          <li key={`${match} ${text}`} className="flex gap-1.5 border-b border-line py-0.5">
            <b className="truncate">{text}</b> <span className="text-soft">{match}</span>
            {places > 1 && <span className="ml-auto whitespace-nowrap text-soft">{places} places</span>}
          </li>
        ))}
      </ul>
      {negatives.count > negatives.first.length && (
        <p className="text-soft">and {negatives.count - negatives.first.length} more</p>
      )}
    </>
  );
}

const LEFT_OUT: Record<LeftOut['why'], string> = {
  'product code': 'are product codes: they go to product exclusions, never among keywords',
  'no word': 'hold no word',
  'exact keyword': 'are live exact keywords: a case for their bids',
  protected: 'are protected',
  refused: 'are too long for a negative',
};

function sayLeftOut({ why, terms: { count, first } }: LeftOut): string {
  return `Left out: ${formatCount(count)} ${LEFT_OUT[why]} (${listed(first, count)}).`;
}
