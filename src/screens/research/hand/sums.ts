import type { Weight } from '@/contracts/common';
import { formatConversions } from '@/ui/format';

/** A sum over terms: 0 where there is no term; null where there are some and the source leaves the figure out. */
export const sumIn = (weight: Weight, figure: 'costMicros' | 'conversions'): number | null =>
  weight.terms === 0 ? 0 : weight[figure];

export const formatKnown = (conversions: number | null): string =>
  conversions === null ? '–' : formatConversions(conversions);
