'use client';

import { Popover } from 'radix-ui';

/** What “at fault” means, where it stands. */
export function WhyAtFault() {
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-6 shrink-0 text-pine hover:underline">at fault?</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          collisionPadding={8}
          className="z-40 w-80 space-y-1.5 rounded border border-line bg-sheet px-3 py-2.5 text-table text-ink shadow-lg"
        >
          <p>
            <b>At fault</b> is a word that surely brings the terms that hold it to less than half of what
            their ad groups bring, or below the target, whichever is less.
          </p>
          <p>
            Each click on such a term could have been a click on another term of its ad group. So each counts
            with the conversion rate of the ad group that served it: the sum is what the ad groups{' '}
            <i>would have brought</i>. What the word <i>brought</i> is held against it, over all days that are
            kept, since in this window alone most words have too few clicks.
          </p>
          <p>
            Few clicks prove little: a word is first taken to be like all others, and each click moves it away
            from that. From 80 % on (the tick) it is offered; below one conversion that should have come,
            nothing is said.
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
