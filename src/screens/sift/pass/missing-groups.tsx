'use client';

import { Popover } from 'radix-ui';
import type { MissingGroup } from '@/contracts/pass';
import { counted } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { conversionsOf } from '@/ui/format';

/** Ad groups that miss the target as a whole: a case for their bids, each with the bid at which it would pay. */
export function MissingGroups({ groups }: { groups: readonly MissingGroup[] }) {
  const formatMoney = useMoney();
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-6 text-pine hover:underline">
        {counted(groups.length, 'ad group')} to bid less
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          collisionPadding={8}
          tabIndex={0}
          className="z-40 max-h-96 w-96 space-y-2 overflow-y-auto rounded border border-line bg-sheet px-3 py-2.5 text-table shadow-lg"
        >
          <p>
            These miss the target as a whole: their terms are no worse than their neighbours. A negative would
            only move the loss; a lower bid mends it.
          </p>
          {groups.map((group) => (
            <p key={`${group.campaign} ${group.name}`} className="border-t border-line pt-1.5">
              <b>{group.name}</b> <span className="text-soft">{group.campaign}</span>
              <br />
              {counted(group.clicks, 'click')}, {conversionsOf(group)}; {counted(group.terms, 'term')} that
              surely miss cost {formatMoney(group.costMicros)}.
              {group.paysMicros !== null && <> It would pay at {formatMoney(group.paysMicros)} a click.</>}
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
