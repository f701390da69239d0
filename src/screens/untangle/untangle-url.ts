'use client';

import { parseAsStringLiteral, useQueryState } from 'nuqs';
import type { ConflictsShown } from '@/contracts/untangle';

const SHOWN = ['open', 'meant', 'left'] as const satisfies ConflictsShown[];

/** The pile of conflicts that is shown, in the URL. */
export function useShown(): [ConflictsShown, (shown: ConflictsShown) => void] {
  const [shown, setShown] = useQueryState(
    'shown',
    parseAsStringLiteral(SHOWN).withDefault('open').withOptions({ history: 'push' }),
  );
  return [shown, (next) => void setShown(next)];
}
