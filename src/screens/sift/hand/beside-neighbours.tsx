'use client';

import type { Beside } from '@/contracts/hand';
import { useMoney } from '@/screens/frame/money';
import { conversionsOf, formatShare } from '@/ui/format';
import { counted } from '@/core';

/** Sure enough to act on (rules 7.13). */
const SURE = 0.95;

type Props = {
  beside: Beside;
  /** that the term misses the target, 0..1; null without a target */
  misses: number | null;
};

/**
 * Of a term that surely misses or is surely worse than its neighbours: whether it is to blame, a case for a negative, or its
 * whole ad group, a case for the bid.
 */
export function BesideNeighbours({ beside: { expected, worse, adGroup }, misses }: Props) {
  const formatMoney = useMoney();
  const isWorse = worse >= SURE;
  if (!isWorse && (misses ?? 0) < SURE) return null;
  const brings = <>Its ad groups would have brought {expected.toFixed(1)}</>;
  if (isWorse) {
    return (
      <>
        {brings}: <b className="text-ink">worse than its neighbours</b>, {formatShare(worse)} sure; a case for
        a negative.
      </>
    );
  }
  if (adGroup === null || (adGroup.misses ?? 0) < SURE)
    return <>{brings}, little more: a lower bid may do.</>;
  return (
    <>
      {brings}. <b className="text-ink">The whole ad group {adGroup.name} misses the target</b> (
      {counted(adGroup.clicks, 'click')}, {conversionsOf(adGroup)}): a case for its bid.
      {adGroup.paysMicros !== null && <> It would pay at {formatMoney(adGroup.paysMicros)} a click.</>}
    </>
  );
}
