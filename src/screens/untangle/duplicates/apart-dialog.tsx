'use client';

import { counted, listed } from '@/core';
import type { DuplicatesView } from '@/contracts/duplicates';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { More, UnjudgedList } from '../unjudged';

type Props = Pick<DuplicatesView, 'apart' | 'unjudged'> & { onClose: () => void };

/** The same keywords in campaigns that never meet, and keywords of which nothing can be said. */
export function ApartDialog({ apart: { pairs, splits }, unjudged, onClose }: Props) {
  return (
    <DialogFrame
      title="Kept apart on purpose"
      says={`${counted(pairs, 'pair')} of the same keyword in campaigns that never meet.`}
      onClose={onClose}
    >
      <ul className="max-h-[40vh] overflow-y-auto text-table" tabIndex={0} aria-label="Kept apart on purpose">
        {splits.first.map(({ text, by, parts }) => (
          <li key={`${text} ${parts.join()}`} className="border-b border-line py-1">
            <b>{text}</b> <span className="text-soft">by {listed(by)}:</span>{' '}
            {parts.map((names) => names.join(', ')).join(' | ')}
          </li>
        ))}
        <More {...splits} />
      </ul>
      {unjudged.count > 0 && (
        <section className="text-table">
          <h3 className="font-semibold">{counted(unjudged.count, 'keyword')} can not be judged</h3>
          <UnjudgedList unjudged={unjudged} />
        </section>
      )}
      <span>
        <Button onClick={onClose}>Close</Button>
      </span>
    </DialogFrame>
  );
}
