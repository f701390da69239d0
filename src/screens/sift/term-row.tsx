'use client';

import { memo } from 'react';
import { ratios, spendWithoutReturn } from '@/core';
import type { TermLine } from '@/contracts/sift';
import { useAccount } from '@/screens/frame/account-context';
import { formatConversions, formatCount, formatMoney, formatShare } from '@/ui/format';
import { Mark } from '@/ui/marks';
import { Meter } from './meter';
import { MatchChip } from '@/ui/match-chip';

/** The columns of the table, the same in header and rows. */
export const COLUMNS = 'grid grid-cols-[minmax(0,1fr)_minmax(0,128px)_44px_62px_40px_34px_56px] gap-x-2 px-3';

const NOTE: Record<Exclude<TermLine['kind'], 'query'>, string> = {
  code: 'a product code: it can be excluded as a product, not stopped by a negative',
  wordless: 'holds no word, so no negative can stop it',
  unreported: 'spend on queries that the platform does not name',
};

type Props = {
  index: number;
  /** px from the top of all rows */
  top: number;
  line: TermLine | undefined;
  isInHand: boolean;
  /** chosen words of the row in hand */
  positions: readonly number[];
  /** the negative in hand would stop this row too */
  wouldGo: boolean;
};

/** A row of the table; the table listens for clicks, by data-index and data-word. */
export const TermRow = memo(function TermRow({ index, top, line, isInHand, positions, wouldGo }: Props) {
  return (
    <div
      role="row"
      id={`term-${index}`}
      data-index={index}
      aria-rowindex={index + 2}
      aria-selected={isInHand}
      className={`${COLUMNS} absolute inset-x-0 h-[30px] items-center border-b border-line ${isInHand ? 'border-l-[3px] border-l-pine bg-raised pl-[9px] outline-pine group-focus-visible/grid:outline-2 -outline-offset-2' : ''} ${wouldGo ? 'bg-straw/50' : ''}`}
      style={{ top }}
    >
      {line ? <Cells line={line} positions={positions} wouldGo={wouldGo} /> : <div role="gridcell">…</div>}
    </div>
  );
});

function Cells({
  line,
  positions,
  wouldGo,
}: {
  line: TermLine;
  positions: readonly number[];
  wouldGo: boolean;
}) {
  const { summary } = useAccount();
  const { cpaMicros, acos } = ratios(line);
  const without = spendWithoutReturn(line);
  const returned = (line.conversions ?? 0) > 0;
  return (
    <>
      <div
        role="gridcell"
        className="flex items-center gap-[3px] overflow-hidden mask-r-from-[calc(100%-14px)] mask-r-to-100% whitespace-nowrap"
        title={line.raw}
      >
        {line.words.map((word, i) => (
          <button
            key={i}
            type="button"
            tabIndex={-1}
            aria-pressed={positions.includes(i)}
            className={`rounded px-[3px] font-semibold ${positions.includes(i) ? 'bg-straw underline decoration-timber decoration-2 underline-offset-4' : 'hover:bg-straw/60'}`}
            data-word={i}
          >
            {word}
          </button>
        ))}
        {line.kind !== 'query' && (
          <span className="truncate" title={NOTE[line.kind]}>
            <b>{line.raw}</b>{' '}
            <span className="text-soft">{line.kind === 'code' ? 'product code' : 'no word'}</span>
          </span>
        )}
        {line.isProtected && <Mark kind="kept" label="protected" />}
        {wouldGo && <span className="sr-only">would be stopped too</span>}
      </div>
      <div
        role="gridcell"
        className="flex items-center gap-1 overflow-hidden whitespace-nowrap text-soft"
        title={line.servedBy.keyword ?? undefined}
      >
        <span className="truncate">{line.servedBy.keyword ?? ''}</span>
        <MatchChip match={line.servedBy.match} />
        {line.others > 0 && <span className="text-[12px]">+{line.others}</span>}
      </div>
      <div role="gridcell" className="text-right">
        {formatCount(line.clicks)}
      </div>
      <div role="gridcell" className={`text-right ${without > 0 ? 'text-timber' : ''}`}>
        {formatMoney(line.costMicros)}
      </div>
      <div role="gridcell" className={`text-right ${returned ? 'font-semibold text-moss' : ''}`}>
        {formatConversions(line.conversions)}
      </div>
      <div role="gridcell">
        <Meter evidence={line.evidence} clicks={line.clicks} />
      </div>
      <div role="gridcell" className="text-right">
        {summary.steersBy === 'CPA' ? formatMoney(cpaMicros) : formatShare(acos)}
      </div>
    </>
  );
}
