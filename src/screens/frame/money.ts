'use client';

import { useCallback } from 'react';
import { formatAmount, plainAmount } from '@/core';
import { useAccount } from './account-context';

/** Writes amounts of the account with its currency's own decimal places; what is unknown is a dash. */
export function useMoney(): (micros: number | null) => string {
  const { currency } = useAccount().summary;
  return useCallback((micros) => (micros === null ? '–' : formatAmount(micros, currency)), [currency]);
}

/** Amounts in units of the currency, rounded to its own decimal places, as they stand in a saved file. */
export function useUnits(): (micros: number | null) => number | null {
  const { currency } = useAccount().summary;
  return useCallback(
    (micros) => (micros === null ? null : Number(plainAmount(micros, currency))),
    [currency],
  );
}
