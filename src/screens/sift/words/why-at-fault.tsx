'use client';

import { Explain } from '@/ui/explain';

/** What “at fault” means, where it stands. */
export function WhyAtFault() {
  return (
    <Explain about="at fault" trigger="at fault?" className="shrink-0">
      <div className="space-y-1.5">
        <p>
          <b>At fault</b> is a word that surely brings the terms that hold it to less than half of what their
          ad groups bring, or below the target, whichever is less.
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
      </div>
    </Explain>
  );
}
