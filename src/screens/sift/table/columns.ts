'use client';

import { useSyncExternalStore, type CSSProperties } from 'react';
import type { Sort } from '@/contracts/sift';

/** A column of figures that can be switched on. */
export type Extra = 'impressions' | 'cpc' | 'value' | 'campaign' | 'last day';
export const EXTRAS: readonly { name: Extra; px: number; sort?: Sort }[] = [
  { name: 'impressions', px: 56, sort: 'impressions' },
  { name: 'cpc', px: 44 },
  { name: 'value', px: 62 },
  { name: 'campaign', px: 96 },
  { name: 'last day', px: 50 },
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

const FIGURES = [40, 60, 38, 34, 54];
const MARK = 20;
/** Room that a term always has. */
const LEAST_TERM = 96;
const GAP = 8;
const PADDING = 24;

/**
 * The columns of a row, the same in the header: mark, term, served by, figures, evidence, target, extras; as styles of
 * the table. Where the table is narrow, what served a term stands in hand alone. Where even that is too wide, the table
 * is scrolled sideways.
 */
export function gridColumns(extras: readonly Extra[]): CSSProperties {
  const figures = [...FIGURES, ...EXTRAS.filter(({ name }) => extras.includes(name)).map(({ px }) => px)];
  const sized = (texts: string) => [`${MARK}px`, texts, ...figures.map((px) => `${px}px`)].join(' ');
  const least = [PADDING, MARK, LEAST_TERM, ...figures].reduce((sum, px) => sum + px);
  return {
    '--wide': sized(`minmax(${LEAST_TERM}px,1fr) minmax(0,124px)`),
    '--narrow': sized(`minmax(${LEAST_TERM}px,1fr)`),
    '--least': `${least + GAP * (figures.length + 1)}px`,
  } as CSSProperties;
}

/** What a row, or the header, is given for its columns. */
export const ROW_COLUMNS =
  'grid gap-x-2 px-3 [grid-template-columns:var(--narrow)] @min-[560px]:[grid-template-columns:var(--wide)]';
/** What the cell of a row that says what served its term is given. */
export const SERVED_BY = '@max-[560px]:hidden';
