'use client';

import { parseAsStringLiteral, useQueryState } from 'nuqs';
import type { ConflictsShown } from '@/contracts/untangle';

/** A pile of conflicts, or another kind of knot. */
export type Shown = ConflictsShown | 'needless';
/** as they stand side by side */
export const SHOWN = ['open', 'needless', 'meant', 'left'] as const satisfies Shown[];

/** The knots that are shown, in the URL. */
export function useShown(): [Shown, (shown: Shown) => void] {
  const [shown, setShown] = useQueryState(
    'shown',
    parseAsStringLiteral(SHOWN).withDefault('open').withOptions({ history: 'push' }),
  );
  return [shown, (next) => void setShown(next)];
}
