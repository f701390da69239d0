'use client';

import { Fragment } from 'react';
import { spendWithoutReturn } from '@/core';
import type { TermLine } from '@/contracts/sift';
import { formatConversions } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { NotServed } from '@/screens/frame/not-served';
import { StateIcon } from '@/ui/state-icon';
import type { RowState } from '@/ui/table/column';

/** What a row is drawn by beside its line. */
export type TermLook = {
  /** chosen words of the row in hand */
  positions: readonly number[];
  /** a decision on it waits for the connection */
  isWaiting: boolean;
  /** the negative in hand would stop this row too */
  wouldGo: boolean;
  /** why the key that was pressed last does nothing here; null where nothing is to be said */
  refused: string | null;
};

const NOTE: Record<Exclude<TermLine['kind'], 'query'>, string> = {
  code: 'product code',
  wordless: 'no word',
  unreported: 'not named by the platform',
};
/** Letters of a term that fit into its column at the reference size. */
const FITS = 40;

/**
 * The words of a term. The table listens for clicks, by data-word: what can be clicked is no control of its own (the keys
 * reach all of it), so that rows are light enough to scroll by. A long term in hand lies over what served it, so that all
 * of its words can be seen and chosen.
 */
export function TermCell({ line, look, state }: { line: TermLine; look: TermLook; state: RowState }) {
  if (state.isLight)
    return (
      <span className={line.isSeen ? '' : 'font-semibold'}>
        {line.kind === 'query' ? line.words.join(' ') : line.raw}
      </span>
    );
  const isLong = state.isInHand && line.raw.length > FITS;
  return (
    <span
      data-raw={line.raw}
      title={line.raw}
      className={isLong ? 'absolute inset-y-px z-10 flex items-center gap-[0.28em] bg-(--row) pr-3' : ''}
    >
      {look.isWaiting && <StateIcon kind="drafted" label="decided, waits for the connection" />}
      {line.words.map((word, i) => (
        <Fragment key={i}>
          <Word word={word} at={i} isChosen={look.positions.includes(i)} isSeen={line.isSeen} />{' '}
        </Fragment>
      ))}
      {line.kind !== 'query' && (
        <>
          <b>{line.raw}</b> <span className="text-soft">{NOTE[line.kind]}</span>
        </>
      )}
      {line.locations.map(({ name, kind }) => (
        <NotServed key={name} name={name} kind={kind} />
      ))}
      {line.isProtected && <StateIcon kind="kept" label="protected" />}
      {line.notes > 0 && <span className="text-small text-pine"> note</span>}
      {line.isSeen && <span className="sr-only">looked at</span>}
      {look.wouldGo && <span className="sr-only">would be stopped too</span>}
      {look.refused !== null && (
        <span
          role="status"
          className="absolute inset-y-px right-3 z-20 flex items-center bg-(--row) pl-3 text-rust"
        >
          {look.refused}
        </span>
      )}
    </span>
  );
}

type WordProps = { word: string; at: number; isChosen: boolean; isSeen: boolean };

/** What marks a word reaches beyond it, so that words stand as far apart as in any text. */
function Word({ word, at, isChosen, isSeen }: WordProps) {
  return (
    <span
      role="button"
      aria-pressed={isChosen}
      className={`-mx-[2px] inline-block cursor-pointer rounded px-[2px] leading-5 ${isSeen ? 'font-normal' : 'font-semibold'} ${isChosen ? 'bg-straw underline decoration-timber decoration-2 underline-offset-4' : 'hover:bg-straw/60'}`}
      data-word={at}
    >
      {word}
    </span>
  );
}

/** The keyword that served a term; a report that has no column for it does not say. */
export function ServedByCell({ line, isLight }: { line: TermLine; isLight: boolean }) {
  const { keyword, match } = line.servedBy;
  const said = keyword ?? (match === 'unknown' ? 'not given' : '');
  if (isLight) return <span className="text-soft">{said}</span>;
  return (
    <span className="text-soft" title={keyword ?? undefined}>
      {match !== 'unknown' && <MatchChip match={match} />} {said}
      {line.others > 0 && <span className="text-small"> +{line.others}</span>}
    </span>
  );
}

export function CostCell({ line, money }: { line: TermLine; money: (micros: number | null) => string }) {
  return <span className={spendWithoutReturn(line) > 0 ? 'text-timber' : ''}>{money(line.costMicros)}</span>;
}

export function ConversionsCell({ line: { conversions } }: { line: TermLine }) {
  return (
    <span className={(conversions ?? 0) > 0 ? 'font-semibold text-moss' : ''}>
      {formatConversions(conversions)}
    </span>
  );
}
