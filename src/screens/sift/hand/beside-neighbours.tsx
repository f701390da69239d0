'use client';

import type { Beside } from '@/contracts/hand';
import { useMoney } from '@/screens/frame/money';
import { conversionsOf, formatConversions, formatShare } from '@/ui/format';
import { counted } from '@/core';

/** Sure enough to act on (rules 7.13). */
const SURE = 0.95;

type Props = {
  beside: Beside;
  /** that the term misses the target, 0..1; null without a target */
  misses: number | null;
};

/** Whether a term is to blame, or its whole ad group is: a case for a negative, or for a bid. */
export function BesideNeighbours({ beside: { expected, worse, adGroup }, misses }: Props) {
  const formatMoney = useMoney();
  const isWorse = worse >= SURE;
  const groupMisses = adGroup !== null && (adGroup.misses ?? 0) >= SURE;
  return (
    <p className="text-[13px] text-soft">
      Its ad groups would have brought {formatConversions(Number(expected.toFixed(1)))}
      {isWorse && (
        <>
          : <b className="text-ink">{formatShare(worse)} sure that it is worse than its neighbours</b>, a case
          for a negative
        </>
      )}
      .
      {groupMisses && (
        <>
          {' '}
          <b className="text-ink">The whole ad group {adGroup.name} misses the target</b> (
          {counted(adGroup.clicks, 'click')}, {conversionsOf(adGroup)}): a case for its bid.
          {adGroup.paysMicros !== null && <> It would pay at {formatMoney(adGroup.paysMicros)} a click.</>}
        </>
      )}
      {!isWorse && !groupMisses && misses !== null && misses >= SURE && (
        <> Its neighbours bring little more; a lower bid may do.</>
      )}
    </p>
  );
}
