'use client';

import { useState } from 'react';
import type { TrayChange } from '@/contracts/tray';
import { useTrayActions } from './use-tray';

/** What people said of a change and, where it is in hand, a field to say more. */
export function CommentCell({
  change: { id, said, comments },
  isInHand,
}: {
  change: TrayChange;
  isInHand: boolean;
}) {
  const { comment } = useTrayActions();
  const [text, setText] = useState<string | null>(null);
  return (
    <>
      {comments.map((one) => (
        <span key={one.id} className="block text-small whitespace-normal text-soft">
          {one.by}: <span className="text-ink">{one.text}</span>
        </span>
      ))}
      {!isInHand ? null : text === null ? (
        <button
          type="button"
          className="text-small text-pine hover:underline"
          aria-label={`Comment on: ${said}`}
          onClick={() => setText('')}
        >
          comment
        </button>
      ) : (
        <input
          autoFocus
          aria-label={`Comment on: ${said}`}
          className="w-full border-b border-dashed border-soft bg-transparent text-small"
          maxLength={500}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => text.trim() === '' && setText(null)}
          onKeyDown={(event) => {
            event.stopPropagation(); // the keys of the table mean other things
            if (event.key === 'Escape') {
              event.preventDefault();
              setText(null);
            }
            if (event.key === 'Enter' && text.trim() !== '')
              void comment(id, text.trim()).then((isSaid) => isSaid && setText(null));
          }}
        />
      )}
    </>
  );
}
