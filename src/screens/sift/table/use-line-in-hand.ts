'use client';

import { useState } from 'react';
import type { Window } from '@/core';
import type { TermLine } from '@/contracts/sift';
import { useIsUndoing } from '@/screens/frame/data/undo';
import type { SiftUrl } from '../sift-url';
import { pageOf, useLines } from './use-lines';

/** So far above and below its place the term in hand is looked for when the lines have changed. */
const NEAR = 20;

type Held = { view: string; index: number; term: number | null };

/**
 * The line in hand. It stays with its term when lines above it come or go, since what is decided by key is decided about
 * the term that the person sees there. Only where the term itself is gone, or the person undoes, what stands in its place is
 * taken in hand.
 * @param view names filters and order: another begins at the first line
 */
export function useLineInHand(url: SiftUrl, beside: Window | null, view: string) {
  const [kept, hold] = useState<Held>({ view, index: 0, term: null });
  const held = kept.view === view ? kept : { view, index: 0, term: null };
  const isUndoing = useIsUndoing();
  const lines = useLines(url, beside, {
    from: pageOf(Math.max(0, held.index - NEAR)),
    to: pageOf(held.index + NEAR),
  });
  const total = lines.first?.total ?? 0;
  const at = Math.min(held.index, Math.max(0, total - 1));
  const there: TermLine | undefined = lines.lineAt(at);

  // While lines of other filters or another order stand in, nothing is held by them.
  const isOther = !lines.isStale && there !== undefined && there.id !== held.term;
  const mustStay = held.term !== null && !isUndoing;
  const moved = isOther && mustStay ? findNear(lines.lineAt, at, held.term) : undefined;
  const isOpen = isOther && mustStay && moved === undefined && lines.isOnItsWay;
  if (isOther && !isOpen) {
    const index = moved ?? at;
    hold({ view, index, term: lines.lineAt(index)!.id });
  }
  return {
    lines,
    total,
    at: moved ?? at,
    /** undefined while it is not known where the term in hand went */
    line: isOpen ? undefined : lines.lineAt(moved ?? at),
    goTo: (index: number) => hold({ view, index, term: null }),
  };
}

function findNear(
  lineAt: (index: number) => TermLine | undefined,
  at: number,
  term: number | null,
): number | undefined {
  for (let distance = 1; distance <= NEAR; distance++)
    for (const index of [at - distance, at + distance])
      if (index >= 0 && lineAt(index)?.id === term) return index;
  return undefined;
}
