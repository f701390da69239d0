'use client';

import type { Window } from '@/core';
import type { TwoWindows } from '@/contracts/common';
import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount, formatDays, signed } from '@/ui/format';

type Props = { sums: TwoWindows; days: Window };

/** All terms of the view in these days and in those beside, with the differences. */
export function BesideSums({ sums: { now, then }, days }: Props) {
  const money = useMoney();
  return (
    <p className="text-small text-soft" data-testid="beside">
      These terms cost {money(now.costMicros)}; {formatDays(days)} {money(then.costMicros)}:{' '}
      <b className="text-ink">{signed(now.costMicros - then.costMicros, money)}</b>,{' '}
      {signed(now.clicks - then.clicks, formatCount)} clicks,{' '}
      {signed(now.conversions - then.conversions, formatConversions)} conversions
    </p>
  );
}
