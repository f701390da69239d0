'use client';

import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import { sayFault, OFFERED } from '../words/say-fault';
import { SureBar } from '../table/meter';
import type { PassItem } from './pass-items';

/** Columns of the pass: what, would have brought, brought, sure, terms, cost, risks. */
export const PASS_COLUMNS =
  'grid grid-cols-[minmax(0,1fr)_5rem_3.5rem_4rem_3.5rem_4.5rem_3.5rem] items-center gap-x-2 px-3';

type Props = {
  item: PassItem;
  since: string | null;
  isInHand: boolean;
  id: string;
  index: number;
  onChoose: () => void;
};

/** A word or a term of the pass, with what stopping it would do and risk. */
export function PassRow({ item, since, isInHand, id, index, onChoose }: Props) {
  const formatMoney = useMoney();
  const isWord = item.step === 'words';
  const { stops, risks } = isWord ? item.word.places[0]! : item.term;
  const [expected, brought] = isWord
    ? [item.word.fault.expected, item.word.fault.conversions]
    : [item.term.beside?.expected ?? null, item.term.conversions];
  return (
    <div
      id={id}
      role="row"
      aria-rowindex={index + 1}
      aria-selected={isInHand}
      className={`${PASS_COLUMNS} h-[30px] border-b border-line text-table ${isInHand ? 'bg-raised shadow-[inset_3px_0_0_var(--color-pine)]' : 'hover:bg-raised/60'}`}
      onClick={onChoose}
    >
      <span role="gridcell" className="truncate" title={isWord ? item.word.ngram : item.term.raw}>
        <b className="font-semibold">{isWord ? item.word.ngram : item.term.raw}</b>
        {isWord && item.word.leavesOpen.count > 0 && (
          <span className="text-soft">
            {' '}
            in {formatCount(item.word.negatives.count)} longer{' '}
            {item.word.negatives.count === 1 ? 'negative' : 'negatives'}
          </span>
        )}
      </span>
      <span role="gridcell" className="text-right">
        {expected === null ? '–' : expected.toFixed(1)}
      </span>
      <span role="gridcell" className="text-right">
        {formatConversions(brought)}
      </span>
      <span role="gridcell">
        {isWord ? (
          <SureBar
            sure={item.word.fault.probability}
            settledFrom={OFFERED}
            says={sayFault(item.word.fault, since)}
          />
        ) : (
          item.term.misses !== null && (
            <SureBar sure={item.term.misses} settledFrom={0.95} says="Sure that it misses the target" />
          )
        )}
      </span>
      <span role="gridcell" className="text-right">
        {formatCount(stops.terms)}
      </span>
      <span role="gridcell" className="text-right text-timber">
        {formatMoney(stops.costMicros)}
      </span>
      <span role="gridcell" className="text-right text-soft">
        {risks.toFixed(1)}
      </span>
    </div>
  );
}
