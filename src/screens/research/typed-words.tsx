'use client';

import type { RemainderLine } from '@/contracts/research';
import { Button } from '@/ui/button';
import type { ResearchUrl } from './research-url';

/** The words that are typed, as something that can be stopped; undefined where there is none. */
export function asTyped(typed: string): RemainderLine | undefined {
  const forms = typed
    .split(',')
    .map((text) => text.trim())
    .filter((text) => text !== '');
  if (forms.length === 0) return undefined;
  return {
    ...{ text: forms.join(', '), forms, ideas: 0, volume: null, openingBidMicros: null },
    ...{ relatedness: null, fault: null, location: null, example: '' },
  };
}

type Props = {
  url: ResearchUrl;
  isInHand: boolean;
  onHand: (isInHand: boolean) => void;
  onChange: (change: Partial<ResearchUrl>) => void;
};

/** Reading in passes: the words typed shrink the sheet; turned round, it shows what would go; then they become the negatives. */
export function TypedWords({ url, isInHand, onHand, onChange }: Props) {
  const isTurned = url.holds === 'any';
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-line bg-straw-soft px-3 py-1 text-table">
      <span>
        {isTurned
          ? 'These would go. Keep what must stay: what would stop it is held back then.'
          : 'Without what the words typed would stop.'}
      </span>
      <span className="ml-auto flex gap-1.5">
        <Button onClick={() => onChange({ holds: isTurned ? 'none' : 'any' })}>
          {isTurned ? 'Show the rest' : 'Show what would go'}
        </Button>
        <Button tone={isInHand ? 'plain' : 'main'} onClick={() => onHand(!isInHand)}>
          {isInHand ? 'Back to the rows' : 'Stop the words typed'}
        </Button>
      </span>
    </div>
  );
}
