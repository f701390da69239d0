'use client';

import { counted } from '@/core';
import type { OwnKeywordLine } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { BidForm } from '@/screens/frame/bid-form';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { InlineField } from '@/ui/form';
import { conversionsOf, formatCount, formatDay, formatMoment, formatShare } from '@/ui/format';
import type { OwnKeywordInHand } from './use-own-keyword';

/** The exact keyword in hand, or all that are marked: a lower bid, a pause, or more clicks. */
export function KeywordInHand({ keyword }: { keyword: OwnKeywordInHand }) {
  const { line, lines, lower, isMany } = keyword;
  if (lines.length === 0 || !line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  return (
    <InHand
      title={isMany ? `${formatCount(lines.length)} marked` : line.text}
      actions={<Actions keyword={keyword} />}
    >
      {isMany ? (
        <p className="mt-1 text-table">
          {counted(lower.length, 'keyword')} of {formatCount(lines.length)} would reach the target at a lower
          bid.
        </p>
      ) : (
        <One key={line.id} line={line} keyword={keyword} />
      )}
    </InHand>
  );
}

function One({ line, keyword }: { line: OwnKeywordLine; keyword: OwnKeywordInHand }) {
  const money = useMoney();
  const { steersBy } = useAccount().summary;
  const { ever, since, changedOn, target, misses, drafted, left, paysMicros, bidMicros } = line;
  const brought = (sums: OwnKeywordLine['ever']) =>
    `${counted(sums.clicks, 'click')}, ${money(sums.costMicros)}, ${conversionsOf(sums)}`;
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table">
      <p className="text-soft">
        {line.campaign} · {line.adGroup}
      </p>
      <p>
        On all days: {brought(ever)}. To {formatShare(misses)} it misses the target of{' '}
        {steersBy === 'CPA' ? money(target) : formatShare(target)}.
      </p>
      {since && changedOn !== null && (
        <p>
          Since it was changed on {formatDay(changedOn)}: {brought(since)}.
        </p>
      )}
      <p className="text-soft">
        {paysMicros === null
          ? 'What it could pay can not be reckoned.'
          : bidMicros !== null && paysMicros >= bidMicros
            ? `By what it brought a bid of ${money(paysMicros)} would pay, and it has ${money(bidMicros)}: its clicks cost less than its bid.`
            : `By what it brought it pays at a bid of ${money(paysMicros)}.`}
      </p>
      {left && (
        <p>
          Left by {left.by}, {formatMoment(left.at)}: {left.why}.
        </p>
      )}
      {drafted === null ? (
        bidMicros !== null && (
          <BidForm
            label="Bid"
            offeredMicros={paysMicros ?? bidMicros}
            wasMicros={bidMicros}
            onSet={(micros) => keyword.setBid(line, micros)}
            says="Set it"
          />
        )
      ) : (
        <p className="text-pine">In the tray: {drafted}.</p>
      )}
    </div>
  );
}

function Actions({ keyword }: { keyword: OwnKeywordInHand }) {
  const { lower, lines, lowerAll, pause, turnLeft, moreClicks, setMoreClicks } = keyword;
  const isLeft = lines[0]?.left !== null;
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <Button tone="main" disabled={lower.length === 0} onClick={() => void lowerAll()}>
        Lower to what pays <Key>↵</Key>
      </Button>
      <Button onClick={() => void pause()}>
        Pause <Key>p</Key>
      </Button>
      <Button onClick={() => void turnLeft()}>
        {isLeft ? 'Take up again' : 'Leave it for'} <Key>l</Key>
      </Button>
      {!isLeft && (
        <label className="flex items-center gap-1 text-table">
          <InlineField
            label="More clicks"
            type="number"
            min={1}
            max={1_000_000}
            className="w-16 text-right"
            value={moreClicks}
            onChange={(event) =>
              setMoreClicks(Math.max(1, Math.min(1_000_000, Number(event.target.value) || 1)))
            }
          />
          more clicks
        </label>
      )}
    </div>
  );
}
