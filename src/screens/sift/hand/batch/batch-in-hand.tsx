'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BatchAnswer, BatchWay, LeftOut } from '@/contracts/decisions';
import { Hurts } from '@/screens/frame/hurts';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { Explain } from '@/ui/explain';
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
  const limit = way.by === 'each' ? 25 : way.limit;
  return (
    <fieldset className="mt-1 text-table">
      <legend className="sr-only">How to stop them</legend>
      <Way isChosen={way.by === 'few'} onChoose={() => onChange({ by: 'few', limit, mayStopOthers: false })}>
        these rows exactly
      </Way>
      <Way isChosen={way.by === 'like'} onChoose={() => onChange({ by: 'like', limit })}>
        these and their like
      </Way>
      <Way isChosen={way.by === 'each'} onChoose={() => onChange({ by: 'each' })}>
        each as exact, whole term
      </Way>
      {way.by !== 'each' && (
        <p className="flex flex-wrap items-center gap-x-3 text-small text-soft">
          <span className="flex items-center">
            at most
            <Select
              label="At most so many negatives"
              look="word"
              className="ml-1"
              options={LIMITS.map((n) => ({ key: String(n), says: counted(n, 'negative') }))}
              value={String(limit)}
              onChange={(most) => onChange({ ...way, limit: Number(most) })}
            />
          </span>
          {way.by === 'few' && (
            <label className="flex min-h-6 items-center gap-1.5">
              <Check
                checked={way.mayStopOthers}
                onChange={(e) => onChange({ ...way, mayStopOthers: e.target.checked })}
              />
              may stop terms that are not marked
            </label>
          )}
        </p>
      )}
    </fieldset>
  );
}

function Way({
  isChosen,
  onChoose,
  children,
}: {
  isChosen: boolean;
  onChoose: () => void;
  children: string;
}) {
  return (
    <label className="-ml-1.5 flex items-center gap-0.5">
      <Radio name="way" checked={isChosen} onChange={onChoose} />
      {children}
    </label>
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
  const { marked, stops, others, bound, heldBack, leftOut, negatives, changes, touched, refusal } = answer;
  return (
    <>
      {refusal && <p className="text-rust">{refusal}</p>}
      <p>
        <b>{counted(negatives.count, 'negative')}</b>
        {changes !== negatives.count && ` in ${counted(changes, 'place')}`}{' '}
        {negatives.count === 1 ? 'stops' : 'stop'} {formatCount(stops.terms)} of{' '}
        {counted(marked.terms, 'marked term')}: {formatMoney(stops.costMicros ?? 0)} of{' '}
        {formatMoney(marked.costMicros ?? 0)}
        {marked.costMicros ? ` (${formatShare((stops.costMicros ?? 0) / marked.costMicros)})` : ''},{' '}
        {counted(stops.clicks ?? 0, 'click')}, {conversionsOf(stops)}.
      </p>
      {heldBack && heldBack.unwanted.texts > 0 && <Tried heldBack={heldBack} />}
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
          {formatMoney(others.costMicros ?? 0)}, {conversionsOf(others)}: {listed(others.first, others.terms)}
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

/** How such a set does on terms that it was chosen without. */
function Tried({ heldBack: { unwanted, good } }: { heldBack: NonNullable<BatchAnswer['heldBack']> }) {
  const formatMoney = useMoney();
  const ofCost = unwanted.costMicros > 0 ? unwanted.stoppedMicros / unwanted.costMicros : 0;
  return (
    <p data-testid="held-back">
      Of those held back <b>{formatShare(ofCost)}</b>
      {good.texts > 0 && good.stopped === 0 && ', no good term'}
      {good.stopped > 0 && (
        <span className="text-timber">
          , and {formatCount(good.stopped)} of {counted(good.texts, 'good term')}
        </span>
      )}
      .{' '}
      <Explain about="what was held back" trigger="Why">
        A set for these and their like should work next month as well. So Gate Post chose one without a fifth
        of the marked terms, and of the terms that must stay open for what they brought, and looked at what it
        stops of those: {formatCount(unwanted.stopped)} of {counted(unwanted.texts, 'term')} held back,{' '}
        {formatMoney(unwanted.stoppedMicros)} of {formatMoney(unwanted.costMicros)}; of{' '}
        {counted(good.texts, 'good term')} held back, {formatCount(good.stopped)}. The set that is offered
        knows them all: it stops no term that must stay open. Its negatives are chosen by the marked cost that
        they stop, by how many marked terms share them, and by how surely all that they stop falls short.
      </Explain>
    </p>
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
