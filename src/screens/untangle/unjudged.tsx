'use client';

import { useState } from 'react';
import { counted } from '@/core';
import type { ConflictsView } from '@/contracts/untangle';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { formatCount } from '@/ui/format';

type Unjudged = ConflictsView['unjudged'];

/** How many can not be judged, leading to which and why; nothing where there are none. */
export function UnjudgedButton({ unjudged }: { unjudged: Unjudged }) {
  const [isOpen, setOpen] = useState(false);
  if (unjudged.count === 0) return null;
  return (
    <>
      <button type="button" className="min-h-6 text-pine hover:underline" onClick={() => setOpen(true)}>
        {formatCount(unjudged.count)} can not be judged
      </button>
      {isOpen && (
        <DialogFrame
          title="Can not be judged"
          says={`Of ${counted(unjudged.count, 'keyword or negative', 'keywords and negatives')} nothing can be said.`}
          onClose={() => setOpen(false)}
        >
          <UnjudgedList unjudged={unjudged} />
          <span>
            <Button onClick={() => setOpen(false)}>Close</Button>
          </span>
        </DialogFrame>
      )}
    </>
  );
}

export function UnjudgedList({ unjudged }: { unjudged: Unjudged }) {
  return (
    <ul className="max-h-[24vh] overflow-y-auto text-table" tabIndex={0} aria-label="Can not be judged">
      {unjudged.first.map(({ text, where, why }) => (
        <li key={`${where} ${text}`} className="border-b border-line py-1">
          “{text}” <span className="text-soft">in {where}:</span> {why}
        </li>
      ))}
      <More {...unjudged} />
    </ul>
  );
}

/** How many more there are than are named. */
export function More({ count, first }: { count: number; first: readonly unknown[] }) {
  return count > first.length ? (
    <li className="py-1 text-soft">and {formatCount(count - first.length)} more</li>
  ) : null;
}
