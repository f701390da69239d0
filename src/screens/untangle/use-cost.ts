'use client';

import { useMemo } from 'react';
import { noFigures, ratios, type Figures } from '@/core';
import { useMoney } from '@/screens/frame/money';

/** Money as it is written, a dash where it is not known; and what a conversion cost. */
export function useCost() {
  const money = useMoney();
  return useMemo(() => {
    const orDash = (micros: number | null) => (micros === null ? '–' : money(micros));
    return {
      orDash,
      ofConversion: (sums: Pick<Figures, 'costMicros' | 'conversions'>) =>
        orDash(ratios({ ...noFigures(), ...sums }).cpaMicros),
    };
  }, [money]);
}
