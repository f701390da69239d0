'use client';

import { useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useWordTag } from './use-word-tag';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Words that are not shown since someone called them neutral, and the way back. */
export function NeutralWords({ count }: { count: number }) {
  const tag = useWordTag();
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET words'),
  });
  return (
    <Popover.Root>
      <Popover.Trigger className="border-t border-line px-4 py-1.5 text-left text-small text-soft hover:text-ink">
        {counted(count, 'neutral word')} not shown
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          side="top"
          className="z-40 max-h-72 w-72 overflow-y-auto rounded border border-line bg-sheet px-3 py-2 text-table shadow-lg"
        >
          {data?.tags.map(({ text, tag: is, by }) => (
            <p key={text} className="flex min-h-7 items-center gap-2">
              <b className="truncate">{text}</b>
              <span className="text-small text-soft">
                {is}, {by}
              </span>
              <button
                type="button"
                className="ml-auto min-h-6 text-pine hover:underline"
                onClick={() => void tag(text, null)}
              >
                Take off
              </button>
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
