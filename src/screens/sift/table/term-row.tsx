'use client';

import { useMoney } from '@/screens/frame/money';
import { Fragment, memo, type ReactNode } from 'react';
import { ratios, spendWithoutReturn } from '@/core';
import type { TermLine } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import { formatConversions, formatCount, formatDay, formatShare } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { MatchChip } from '@/ui/match-chip';
import { RowMark } from '@/ui/row-mark';
import { ROW_COLUMNS, SERVED_BY, type Extra } from './columns';
import { Meter } from './meter';

const NOTE: Record<Exclude<TermLine['kind'], 'query'>, string> = {
  code: 'a product code: it can be excluded as a product, not stopped by a negative',
  wordless: 'holds no word, so no negative can stop it',
  unreported: 'spend on queries that the platform does not name',
};

type Props = {
  index: number;
  /** px from the top of all rows */
  top: number;
  extras: readonly Extra[];
  line: TermLine | undefined;
  /** its text alone, without what can be clicked: it is scrolled past */
  isLight: boolean;
  isInHand: boolean;
  isMarked: boolean;
  /** a decision on it waits for the connection */
  isWaiting: boolean;
  /** chosen words of the row in hand */
  positions: readonly number[];
  /** the negative in hand would stop this row too */
  wouldGo: boolean;
};

/**
 * A row of the table; the table listens for clicks, by data-index, data-mark and data-word. What can be
 * clicked is no control of its own (the keys reach all of it), so that rows are light enough to scroll by.
 */
export const TermRow = memo(function TermRow(props: Props) {
  const { index, top, line, isInHand, isMarked, wouldGo } = props;
  return (
    <div
      role="row"
      id={`term-${index}`}
      data-index={index}
      aria-rowindex={index + 2}
      aria-selected={isInHand}
      className={`absolute inset-x-0 ${ROW_COLUMNS} h-[30px] items-center [contain:strict] border-b border-line ${isInHand ? 'border-l-[3px] border-l-pine bg-raised pl-[9px] outline-pine group-focus-visible/grid:outline-2 -outline-offset-2' : ''} ${wouldGo || isMarked ? 'bg-straw/50' : ''}`}
      style={{ top }}
    >
      {!line ? (
        <div role="gridcell">…</div>
      ) : (
        <>
          {props.isLight ? <LightCells {...props} line={line} /> : <Cells {...props} line={line} />}
          <Extras extras={props.extras} line={line} />
        </>
      )}
    </div>
  );
});

type CellsProps = Props & { line: TermLine };

/** Letters of a term that fit into its column. */
const FITS = 20;

function Cells({ line, isInHand, positions, wouldGo, isMarked, isWaiting }: CellsProps) {
  // All words of the term in hand can be seen and chosen; what served it stands in hand.
  const isWide = isInHand && line.raw.length > FITS;
  return (
    <>
      <div role="gridcell">
        <RowMark isMarked={isMarked} />
      </div>
      <div
        role="gridcell"
        aria-colspan={isWide ? 2 : undefined}
        className={`truncate leading-[29px] ${isWide ? '@min-[560px]:col-span-2' : ''}`}
        title={line.raw}
      >
        {isWaiting && <StateIcon kind="drafted" label="decided, waits for the connection" />}
        {line.words.map((word, i) => (
          <Fragment key={i}>
            <span
              role="button"
              aria-pressed={positions.includes(i)}
              className={`inline-block cursor-pointer rounded px-[3px] leading-5 ${line.isSeen ? 'font-normal' : 'font-semibold'} ${positions.includes(i) ? 'bg-straw underline decoration-timber decoration-2 underline-offset-4' : 'hover:bg-straw/60'}`}
              data-word={i}
            >
              {word}
            </span>{' '}
          </Fragment>
        ))}
        {line.kind !== 'query' && (
          <span className="truncate" title={NOTE[line.kind]}>
            <b>{line.raw}</b>{' '}
            <span className="text-soft">{line.kind === 'code' ? 'product code' : 'no word'}</span>
          </span>
        )}
        {line.isProtected && <StateIcon kind="kept" label="protected" />}
        {line.notes > 0 && <span className="text-[12px] text-pine">note</span>}
        {line.isSeen && <span className="sr-only">looked at</span>}
        {wouldGo && <span className="sr-only">would be stopped too</span>}
      </div>
      {!isWide && (
        <div
          role="gridcell"
          className={`${SERVED_BY} flex items-center gap-1 overflow-hidden whitespace-nowrap text-soft`}
          title={line.servedBy.keyword ?? undefined}
        >
          <span className="truncate">{sayKeyword(line)}</span>
          {line.servedBy.match !== 'unknown' && <MatchChip match={line.servedBy.match} />}
          {line.others > 0 && <span className="text-[12px]">+{line.others}</span>}
        </div>
      )}
      <Figures
        line={line}
        meter={<Meter evidence={line.evidence} clicks={line.clicks} conversions={line.conversions} />}
      />
    </>
  );
}

/** The keyword that served a term; a report that has no column for it does not say. */
function sayKeyword({ servedBy: { keyword, match } }: TermLine): string {
  return keyword ?? (match === 'unknown' ? 'not given' : '');
}

/** The same in as few elements as there are columns; words stand where they stand when they can be clicked. */
function LightCells({ line, isMarked }: CellsProps) {
  return (
    <>
      <div role="gridcell">{isMarked && <RowMark isMarked />}</div>
      <div
        role="gridcell"
        className={`truncate pl-[3px] leading-[29px] [word-spacing:6px] ${line.isSeen ? '' : 'font-semibold'}`}
      >
        {line.kind === 'query' ? line.words.join(' ') : line.raw}
      </div>
      <div role="gridcell" className={`${SERVED_BY} truncate text-soft`}>
        {sayKeyword(line)}
      </div>
      <Figures line={line} meter="" />
    </>
  );
}

function Figures({ line, meter }: { line: TermLine; meter: ReactNode }) {
  const formatMoney = useMoney();
  const { summary } = useAccount();
  const { cpaMicros, acos } = ratios(line);
  const without = spendWithoutReturn(line);
  const returned = (line.conversions ?? 0) > 0;
  return (
    <>
      <div role="gridcell" className="text-right">
        {formatCount(line.clicks)}
      </div>
      <div role="gridcell" className={`text-right ${without > 0 ? 'text-timber' : ''}`}>
        {formatMoney(line.costMicros)}
      </div>
      <div role="gridcell" className={`text-right ${returned ? 'font-semibold text-moss' : ''}`}>
        {formatConversions(line.conversions)}
      </div>
      <div role="gridcell">{meter}</div>
      <div role="gridcell" className="text-right">
        {summary.steersBy === 'CPA' ? formatMoney(cpaMicros) : formatShare(acos)}
      </div>
    </>
  );
}

function Extras({ line, extras }: { line: TermLine; extras: readonly Extra[] }) {
  const formatMoney = useMoney();
  return extras.map((extra) => (
    <div
      key={extra}
      role="gridcell"
      className={extra === 'campaign' ? 'truncate text-soft' : 'text-right'}
      title={extra === 'campaign' ? `${line.campaign} / ${line.adGroup}` : undefined}
    >
      {extraText(line, extra, formatMoney)}
    </div>
  ));
}

function extraText(line: TermLine, extra: Extra, formatMoney: ReturnType<typeof useMoney>): string {
  switch (extra) {
    case 'impressions':
      return formatCount(line.impressions);
    case 'cpc':
      return formatMoney(ratios(line).cpcMicros);
    case 'value':
      return formatMoney(line.valueMicros);
    case 'campaign':
      return line.campaign;
    case 'last day':
      return formatDay(line.lastDay);
  }
}
