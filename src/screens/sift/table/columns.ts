'use client';

import { useSyncExternalStore } from 'react';
import type { Sort } from '@/contracts/sift';

/** A column of figures that can be switched on. */
export type Extra = 'impressions' | 'cpc' | 'value' | 'campaign' | 'last day';
export const EXTRAS: readonly { name: Extra; width: string; sort?: Sort; isText?: boolean }[] = [
  { name: 'impressions', width: '56px', sort: 'impressions' },
  { name: 'cpc', width: '44px' },
  { name: 'value', width: '62px' },
  { name: 'campaign', width: 'minmax(0,120px)', isText: true },
  { name: 'last day', width: '50px' },
];

const STORED = 'gatepost-sift-columns';
const listeners = new Set<() => void>();
let read: { stored: string | null; extras: readonly Extra[] } = { stored: null, extras: [] };

function chosen(): readonly Extra[] {
  const stored = typeof localStorage === 'undefined' ? null : localStorage.getItem(STORED);
  if (stored !== read.stored) {
    const names = (stored ?? '').split(',');
    read = { stored, extras: EXTRAS.map((e) => e.name).filter((name) => names.includes(name)) };
  }
  return read.extras;
}

const NONE: readonly Extra[] = [];

/** The columns that this browser shows beside the usual ones; the choice is remembered. */
export function useExtraColumns(): [readonly Extra[], (extras: readonly Extra[]) => void] {
  const extras = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    chosen,
    () => NONE,
  );
  const set = (next: readonly Extra[]) => {
    localStorage.setItem(STORED, next.join(','));
    for (const listener of listeners) listener();
  };
  return [extras, set];
}

/** The columns of a row, the same in the header: mark, term, served by, figures, evidence, target, extras. */
export function gridColumns(extras: readonly Extra[]): string {
  const widths = EXTRAS.filter(({ name }) => extras.includes(name)).map(({ width }) => width);
  return ['20px minmax(0,1fr) minmax(0,124px) 40px 60px 38px 34px 54px', ...widths].join(' ');
}
