'use client';

import { Piles } from '@/screens/frame/piles';
import { useUntangleUrl, type PileShown } from '../untangle-url';

const NAMES: Record<PileShown, string> = { open: 'open', meant: 'meant so', left: 'left' };

/** Which pile of the knots is shown: those that wait for a decision, or those that were set aside. */
export function PileChoice({ counts }: { counts: Partial<Record<PileShown, number>> | undefined }) {
  const [{ pile }, setUrl] = useUntangleUrl();
  const piles = Object.keys(counts ?? { open: 0, left: 0 }) as PileShown[];
  return (
    <Piles
      piles={piles}
      names={NAMES}
      counts={counts}
      value={piles.includes(pile) ? pile : 'open'}
      onChange={(next) => void setUrl({ pile: next })}
    />
  );
}
