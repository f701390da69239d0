'use client';

import { formatAmount } from '@/core';
import { useAccount } from './account-context';

/** Writes amounts of the account with its currency's own decimal places; what is unknown is a dash. */
export function useMoney(): (micros: number | null) => string {
  const { currency } = useAccount().summary;
  return (micros) => (micros === null ? '–' : formatAmount(micros, currency));
}
